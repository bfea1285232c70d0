<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/**
 * Where a timeline's parts went when they were put into another order, moved apart, or taken out. What lay between two parts goes with the earlier
 * one, where there is room for it.
 */
final readonly class Rearrangement
{
    private const END = \PHP_INT_MAX >> 1;

    /**
     * @param list<array{Span, int}> $pieces what is left of the old timeline, in its new order, and by how many samples each moves
     * @param list<array{Span, int}> $inOldOrder the same
     */
    private function __construct(public array $pieces, private array $inOldOrder)
    {
    }

    /**
     * @param list<array{Span, ?int}> $fate parts and by how much each moves, null for one that is gone; the most important first: where two overlap,
     *                                      the later gives way
     */
    public static function of(array $fate): self
    {
        $free = new FreeTime();
        $parts = [];
        foreach ($fate as [$span, $by]) {
            $part = $free->take($span);
            null === $by || array_push($parts, ...array_map(static fn (Span $part): array => [$part, $by], $part));
        }
        $inOrder = $parts;
        usort($inOrder, static fn (array $a, array $b): int => $a[0]->from <=> $b[0]->from);
        $between = [];
        foreach ($inOrder as $i => [$span, $by]) {
            $next = $inOrder[$i + 1][0]->from ?? self::END;
            0 === $i && $span->from > 0 && $between[] = [Span::of(0, $span->from), $by];
            $next > $span->to && $between[] = [Span::of($span->to, $next), $by];
        }
        $room = new FreeTime();
        $pieces = [];
        foreach ([...$parts, ...$between] as [$span, $by]) {
            foreach ($span->to + $by > 0 ? $room->take(Span::of(max(0, $span->from + $by), $span->to + $by)) : [] as $part) {
                $pieces[] = [$part->shifted(-$by), $by];
            }
        }
        usort($pieces, static fn (array $a, array $b): int => $a[0]->from + $a[1] <=> $b[0]->from + $b[1]);
        $pieces = self::joined($pieces);
        $old = $pieces;
        usort($old, static fn (array $a, array $b): int => $a[0]->from <=> $b[0]->from);

        return new self($pieces, $old);
    }

    public function changesNothing(): bool
    {
        return \count($this->pieces) <= 1 && 0 === ($this->pieces[0][1] ?? 0);
    }

    /** Where a moment goes; null when it is no longer there. */
    public function moment(int $position): ?int
    {
        [$low, $high] = [0, \count($this->inOldOrder)];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            if ($this->inOldOrder[$middle][0]->to > $position) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }
        [$span, $by] = $this->inOldOrder[$low] ?? [null, 0];

        return match (true) {
            [] === $this->pieces => $position,
            null === $span || $position < $span->from => null,
            default => $position + $by,
        };
    }

    /** Where a stretch goes, as one, with its middle; null when that is no longer there. */
    public function span(Span $span): ?Span
    {
        $middle = $span->from + intdiv($span->length(), 2);
        $moved = $this->moment($middle);
        $by = null === $moved ? null : $moved - $middle;

        return null === $by || $span->to + $by < 1 ? null : Span::of(max(0, $span->from + $by), $span->to + $by);
    }

    /**
     * @param list<array{Span, int}> $pieces
     *
     * @return list<array{Span, int}>
     */
    private static function joined(array $pieces): array
    {
        $joined = [];
        foreach ($pieces as [$span, $by]) {
            $last = array_key_last($joined);
            if (null !== $last && $joined[$last][1] === $by && $joined[$last][0]->to === $span->from) {
                $joined[$last] = [Span::of($joined[$last][0]->from, $span->to), $by];
            } else {
                $joined[] = [$span, $by];
            }
        }

        return $joined;
    }
}
