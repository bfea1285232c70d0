<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/** A timeline of which parts are taken, each sample once. */
final class FreeTime
{
    /** @var list<Span> taken, in order and apart */
    private array $taken = [];

    /** @return list<Span> what of a stretch was still free; it is taken now */
    public function take(Span $span): array
    {
        $first = $this->firstEndingAfter($span->from);
        $free = [];
        $from = $span->from;
        for ($i = $first; isset($this->taken[$i]) && $this->taken[$i]->from < $span->to; ++$i) {
            $from < $this->taken[$i]->from && $free[] = Span::of($from, $this->taken[$i]->from);
            $from = max($from, $this->taken[$i]->to);
        }
        $from < $span->to && $free[] = Span::of($from, $span->to);
        $all = Span::of(min($span->from, $this->taken[$first]->from ?? \PHP_INT_MAX), max($span->to, $from));
        array_splice($this->taken, $first, $i - $first, [$i > $first ? $all : $span]);

        return $free;
    }

    private function firstEndingAfter(int $position): int
    {
        [$low, $high] = [0, \count($this->taken)];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            if ($this->taken[$middle]->to > $position) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }

        return $low;
    }
}
