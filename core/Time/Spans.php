<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/** Rows of spans. */
final class Spans
{
    /**
     * @param list<Span> $spans in any order
     * @param int $gap samples between two that are still joined
     *
     * @return list<Span> what they cover, apart and in order
     */
    public static function union(array $spans, int $gap = 0): array
    {
        usort($spans, static fn (Span $a, Span $b): int => $a->from <=> $b->from);
        $union = [];
        foreach ($spans as $span) {
            $last = array_pop($union);
            if (null !== $last && $span->from > $last->to + $gap) {
                $union[] = $last;
                $last = null;
            }
            $union[] = null === $last ? $span : Span::of($last->from, max($last->to, $span->to));
        }

        return $union;
    }

    /**
     * @param list<Span> $spans apart and in order
     * @param list<Span> $without what is taken out of them
     *
     * @return list<Span>
     */
    public static function minus(array $spans, array $without): array
    {
        foreach ($without as $hole) {
            $left = [];
            foreach ($spans as $span) {
                if (!$span->meets($hole)) {
                    $left[] = $span;
                    continue;
                }
                if ($span->from < $hole->from) {
                    $left[] = Span::of($span->from, $hole->from);
                }
                if ($span->to > $hole->to) {
                    $left[] = Span::of($hole->to, $span->to);
                }
            }
            $spans = $left;
        }

        return $spans;
    }

    /**
     * @param list<Span> $spans apart and in order
     *
     * @return list<Span> their parts within another span, without going through those before it
     */
    public static function within(array $spans, Span $part): array
    {
        $low = 0;
        $high = \count($spans);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($spans[$middle]->to <= $part->from) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }
        $within = [];
        for ($i = $low; isset($spans[$i]) && $spans[$i]->from < $part->to; ++$i) {
            $inside = $spans[$i]->within($part);
            null === $inside || $within[] = $inside;
        }

        return $within;
    }
}
