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
     *
     * @throws InvalidMix
     */
    public function __construct(public Curve $curve, public array $held = [])
    {
        \count($held) <= self::MAX_HELD || throw InvalidMix::tooMany('held moments', self::MAX_HELD);
    }

    public static function none(): self
    {
        return new self(Curve::flat());
    }

    public function isEmpty(): bool
    {
        return $this->curve->isFlat() && [] === $this->held;
    }
}
