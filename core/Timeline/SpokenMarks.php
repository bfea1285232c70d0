<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;

/** Where somebody has said of a recording that it is speech, or that it is none; whatever is heard in it. */
final readonly class SpokenMarks
{
    public const MOST = 2_000;

    /**
     * @param list<Span> $speech source samples, apart and in order
     * @param list<Span> $other likewise; none of them meets one of speech
     *
     * @throws InvalidMix
     */
    public function __construct(public array $speech = [], public array $other = [])
    {
        \count($speech) + \count($other) <= self::MOST || throw InvalidMix::tooMany('marks of speech', self::MOST);
    }

    public function isEmpty(): bool
    {
        return [] === $this->speech && [] === $this->other;
    }

    /** @param ?bool $speech what it is; null for as it is heard */
    public function marked(Span $span, ?bool $speech): self
    {
        $speaking = Spans::minus($this->speech, [$span]);
        $other = Spans::minus($this->other, [$span]);

        return new self(
            true === $speech ? Spans::union([...$speaking, $span]) : $speaking,
            false === $speech ? Spans::union([...$other, $span]) : $other,
        );
    }

    /**
     * @param list<Span> $found source samples at which somebody was found to speak, apart and in order
     *
     * @return list<Span> likewise, as it was put right
     */
    public function applied(array $found): array
    {
        return $this->isEmpty() ? $found : Spans::union([...Spans::minus($found, $this->other), ...$this->speech]);
    }
}
