<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

/** What lies around each number of a row, to so many on either side and fewer at the ends, in one pass whatever the reach. */
final class Along
{
    /**
     * @param list<float> $row
     *
     * @return list<float>
     */
    public static function sums(array $row, int $reach): array
    {
        $n = \count($row);
        $until = self::until($row);
        $sums = [];
        for ($i = 0; $i < $n; ++$i) {
            $sums[] = $until[$i + $reach < $n ? $i + $reach + 1 : $n] - $until[$i > $reach ? $i - $reach : 0];
        }

        return $sums;
    }

    /**
     * @param list<float> $row
     *
     * @return list<float>
     */
    public static function means(array $row, int $reach): array
    {
        $n = \count($row);
        $until = self::until($row);
        $means = [];
        for ($i = 0; $i < $n; ++$i) {
            $to = $i + $reach < $n ? $i + $reach + 1 : $n;
            $from = $i > $reach ? $i - $reach : 0;
            $means[] = ($until[$to] - $until[$from]) / ($to - $from);
        }

        return $means;
    }

    /**
     * @param list<float> $row
     *
     * @return list<float> standard deviations
     */
    public static function spreads(array $row, int $reach): array
    {
        $n = \count($row);
        $until = self::until($row);
        $squares = self::until(array_map(static fn (float $value): float => $value * $value, $row));
        $spreads = [];
        for ($i = 0; $i < $n; ++$i) {
            $to = $i + $reach < $n ? $i + $reach + 1 : $n;
            $from = $i > $reach ? $i - $reach : 0;
            $mean = ($until[$to] - $until[$from]) / ($to - $from);
            $spread = ($squares[$to] - $squares[$from]) / ($to - $from) - $mean * $mean;
            $spreads[] = $spread > 0.0 ? sqrt($spread) : 0.0;
        }

        return $spreads;
    }

    /**
     * @param list<float> $row
     *
     * @return list<float>
     */
    public static function highest(array $row, int $reach): array
    {
        $n = \count($row);
        $highest = $falling = [];
        $head = 0;
        // Of those within reach only such matter as nothing later is higher than.
        for ($i = 0, $next = 0; $i < $n; ++$i) {
            for (; $next < $n && $next <= $i + $reach; ++$next) {
                while (\count($falling) > $head && $row[$falling[\count($falling) - 1]] <= $row[$next]) {
                    array_pop($falling);
                }
                $falling[] = $next;
            }
            while ($falling[$head] < $i - $reach) {
                ++$head;
            }
            $highest[] = $row[$falling[$head]];
        }

        return $highest;
    }

    /**
     * @param list<float> $row
     * @param list<float> $others
     *
     * @return list<float>
     */
    public static function differences(array $row, array $others): array
    {
        return array_map(static fn (float $value, float $other): float => $value - $other, $row, $others);
    }

    /**
     * @param list<float> $row
     *
     * @return non-empty-list<float> the sum of all before each, and of all
     */
    private static function until(array $row): array
    {
        $sum = 0.0;
        $until = [0.0];
        foreach ($row as $value) {
            $until[] = $sum += $value;
        }

        return $until;
    }
}
