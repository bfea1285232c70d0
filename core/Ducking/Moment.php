<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Time\Span;

/** A stretch that a rule has looked at. */
final readonly class Moment
{
    /** @param Span $span timeline samples of the speech itself */
    public function __construct(public Span $span, public Heard $heard)
    {
    }

    /**
     * @param int $frames samples of 100 ms
     *
     * @return array{int, int} the numbers of the 100 ms that it begins and ends at, the nearest
     */
    public function tenths(int $frames): array
    {
        $half = intdiv($frames, 2);

        return [intdiv($this->span->from + $half, $frames), intdiv($this->span->to + $half, $frames)];
    }
}
