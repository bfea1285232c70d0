<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

/** Stretches in which speech is less clear than wanted, gathered moment by moment: a clear one within a stretch does not part it, and a short one is none. */
final class LowRuns
{
    /** In 100 ms. */
    private const SHORTEST = 5;
    private const LONGEST_GAP = 2;

    /** @var list<array{int, int, float}> */
    private array $runs = [];

    /**
     * @param int $k number of the 100 ms, in order
     * @param float $value how clear it is
     */
    public function add(int $k, float $value): void
    {
        $last = array_pop($this->runs);
        if (null !== $last && $k - $last[1] > self::LONGEST_GAP) {
            $this->runs[] = $last;
            $last = null;
        }
        $this->runs[] = [$last[0] ?? $k, $k + 1, min($last[2] ?? $value, $value)];
    }

    /** @return list<array{int, int, float}> first 100 ms, last + 1, and the lowest value in it */
    public function long(): array
    {
        return array_values(array_filter($this->runs, static fn (array $run): bool => $run[1] - $run[0] >= self::SHORTEST));
    }
}
