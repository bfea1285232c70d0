<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Time\Span;

/** The lane in which a track gives way to speech, apart from its fader, its automation and the curves of its clips. */
final readonly class Ducking
{
    public const MAX_HELD = 10_000;

    /**
     * @param Curve $curve timeline time
     * @param list<Span> $held what was corrected by hand and stays when the rules run again; apart and in order
     * @param array<int, Anchor> $anchors by the start of what is held: the sound that it belongs to, in its middle; without one it stays by the clock
     *
     * @throws InvalidMix
     */
    public function __construct(public Curve $curve, public array $held = [], public array $anchors = [])
    {
        \count($held) <= self::MAX_HELD || throw InvalidMix::tooMany('held moments', self::MAX_HELD);
    }

    public static function none(): self
    {
        return new self(Curve::flat());
    }

    /** @param callable(Span): ?Span $where each of what is held is now; what became shorter or longer stays by the clock from now on */
    public function rearranged(Curve $curve, callable $where): self
    {
        $held = $anchors = [];
        foreach ($this->held as $span) {
            $to = $where($span);
            if (null !== $to) {
                $held[] = $to;
                isset($this->anchors[$span->from]) && $to->length() === $span->length() && $anchors[$to->from] = $this->anchors[$span->from];
            }
        }

        return new self($curve, $held, $anchors);
    }

    /** @param list<Span> $held some of what is held now; the rest is let go of */
    public function holding(Curve $curve, array $held): self
    {
        return new self($curve, $held, array_intersect_key($this->anchors, array_fill_keys(array_map(static fn (Span $span): int => $span->from, $held), true)));
    }

    public function isEmpty(): bool
    {
        return $this->curve->isFlat() && [] === $this->held;
    }
}
