<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Timeline\CutPart;

/**
 * Which clips of a cut are which of its earlier version: by source and part. The same part again is the same clip, in the order in which they stand;
 * where there are more or fewer of them than before, those nearest to where their neighbours went. What is left goes by the most that both have
 * in common.
 */
final class CutMatching
{
    /** Pairs that are looked at for clips of the very same part; beyond it they go by their order. */
    private const MOST_PAIRS = 250_000;

    /** @var array<int, list<int>> places of the earlier parts, by that of the new one */
    private array $matched = [];

    /** @var array<int, list<int>> places of the new parts, by that of the earlier one */
    private array $taken = [];

    /** @var list<array{int, int}> where known parts were, in order, and by how much they move */
    private array $moves = [];

    /**
     * @param list<CutPart> $new
     * @param list<CutPart> $before
     */
    private function __construct(private readonly array $new, private readonly array $before)
    {
    }

    /**
     * @param list<CutPart> $new
     * @param list<CutPart> $before
     *
     * @return array<int, non-empty-list<int>> places of the earlier parts in the order of the source, by the place of the new one
     */
    public static function of(array $new, array $before): array
    {
        $matching = new self($new, $before);
        $matching->same(static fn (CutPart $part): string => "{$part->source} {$part->in} {$part->length} ".mb_strtolower($part->track));
        $matching->same(static fn (CutPart $part): string => "{$part->source} {$part->in} {$part->length}");
        $matching->common();
        $matching->within();
        foreach ($matching->matched as &$places) {
            usort($places, static fn (int $a, int $b): int => $before[$a]->in <=> $before[$b]->in);
        }

        return array_filter($matching->matched);
    }

    /** @param callable(CutPart): string $key */
    private function same(callable $key): void
    {
        $unequal = [];
        $new = $this->grouped($this->new, $this->matched, $key);
        foreach ($this->grouped($this->before, $this->taken, $key) as $name => $before) {
            $of = $new[$name] ?? [];
            if (\count($of) === \count($before) || \count($of) * \count($before) > self::MOST_PAIRS) {
                array_map(fn (int $n, int $b) => $this->match($n, $b), \array_slice($of, 0, \count($before)), \array_slice($before, 0, \count($of)));
            } elseif ([] !== $of) {
                $unequal[] = [$of, $before];
            }
        }
        foreach ($unequal as [$of, $before]) {
            $pairs = [];
            foreach ($of as $n) {
                foreach ($before as $b) {
                    $pairs[] = [$this->astray($n, $b), $n, $b];
                }
            }
            sort($pairs);
            foreach ($pairs as [, $n, $b]) {
                isset($this->matched[$n]) || isset($this->taken[$b]) || $this->match($n, $b);
            }
        }
    }

    /** New parts that are longer, shorter, or a piece of an earlier one. */
    private function common(): void
    {
        $bySource = $this->bySource(array_keys($this->before));
        foreach ($this->new as $n => $part) {
            $best = null;
            foreach (isset($this->matched[$n]) ? [] : $bySource[$part->source] ?? [] as $b) {
                if ($this->before[$b]->in >= $part->out()) {
                    break;
                }
                $overlap = $part->overlap($this->before[$b]);
                if ($overlap > 0 && !$this->isTaken($b, $part)) {
                    $rank = [-$overlap, $part->track === $this->before[$b]->track ? 0 : 1, $this->astray($n, $b)];
                    $best = null === $best || $rank < $best[0] ? [$rank, $b] : $best;
                }
            }
            null === $best || $this->match($n, $best[1]);
        }
    }

    /** Earlier parts that a new one has taken in: cuts that were undone. */
    private function within(): void
    {
        $bySource = $this->bySource(array_keys(array_diff_key($this->before, $this->taken)));
        $before = $this->before;
        foreach ([] === $bySource ? [] : array_intersect_key($this->new, $this->matched) as $n => $part) {
            foreach ($bySource[$part->source] ?? [] as $b) {
                $other = $this->before[$b];
                $apart = static fn (int $known): bool => 0 === $before[$known]->overlap($other);
                if (!isset($this->taken[$b]) && $other->in >= $part->in && $other->out() <= $part->out() && $this->matched[$n] === array_filter($this->matched[$n], $apart)) {
                    $this->match($n, $b);
                }
            }
        }
    }

    /** Whether the common part already went to another. */
    private function isTaken(int $before, CutPart $part): bool
    {
        foreach ($this->taken[$before] ?? [] as $n) {
            if ($this->new[$n]->overlap($part) > 0) {
                return true;
            }
        }

        return false;
    }

    private function match(int $n, int $b): void
    {
        $this->matched[$n][] = $b;
        $this->taken[$b][] = $n;
        array_splice($this->moves, $this->movesBefore($this->before[$b]->at), 0, [[$this->before[$b]->at, $this->move($n, $b)]]);
    }

    /** Samples by which a part moves against its source. */
    private function move(int $n, int $b): int
    {
        return $this->new[$n]->at - $this->new[$n]->in - $this->before[$b]->at + $this->before[$b]->in;
    }

    /** Samples between where a part would go and where its nearest known neighbour went. */
    private function astray(int $n, int $b): int
    {
        $at = $this->before[$b]->at;
        $place = $this->movesBefore($at);
        $before = $this->moves[$place - 1] ?? null;
        $after = $this->moves[$place] ?? null;
        $nearest = null === $before || (null !== $after && $after[0] - $at < $at - $before[0]) ? $after : $before;

        return abs($this->move($n, $b) - ($nearest[1] ?? 0));
    }

    /** How many known parts began before a moment. */
    private function movesBefore(int $at): int
    {
        [$low, $high] = [0, \count($this->moves)];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            [$low, $high] = $this->moves[$middle][0] < $at ? [$middle + 1, $high] : [$low, $middle];
        }

        return $low;
    }

    /**
     * @param list<CutPart> $parts
     * @param array<int, list<int>> $done
     * @param callable(CutPart): string $key
     *
     * @return array<string, list<int>> places in the order of time
     */
    private function grouped(array $parts, array $done, callable $key): array
    {
        $order = array_keys(array_diff_key($parts, $done));
        usort($order, static fn (int $a, int $b): int => $parts[$a]->at <=> $parts[$b]->at);
        $grouped = [];
        foreach ($order as $place) {
            $grouped[$key($parts[$place])][] = $place;
        }

        return $grouped;
    }

    /**
     * @param list<int> $places of earlier parts
     *
     * @return array<string, list<int>> by source, in its order
     */
    private function bySource(array $places): array
    {
        usort($places, fn (int $a, int $b): int => $this->before[$a]->in <=> $this->before[$b]->in);
        $bySource = [];
        foreach ($places as $b) {
            $bySource[$this->before[$b]->source][] = $b;
        }

        return $bySource;
    }
}
