<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * Gated loudness: what is nearly silent does not count, nor what is far below the rest.
 *
 * Source: ITU-R BS.1770, Annex 1: blocks of 400 ms every 100 ms, absolute gate at −70 LKFS, relative gate 10 LU below the mean of
 * what passes the first.
 */
final class Gating
{
    /** Makes a 997 Hz sine read its own level through the K-weighting; ITU-R BS.1770, Annex 1. */
    private const OFFSET = -0.691;

    private const ABSOLUTE_GATE = -70.0;
    private const RELATIVE_GATE = -10.0;
    private const RANGE_GATE = -20.0;
    private const LOW_PERCENTILE = 0.10;
    private const HIGH_PERCENTILE = 0.95;

    /**
     * @param array<int, float> $powers K-weighted mean square of each 100 ms, in order, summed over the channels
     *
     * @return ?float LUFS; null where nothing passes the gates
     */
    public static function integrated(array $powers): ?float
    {
        return self::ofBlocks(self::blocks($powers));
    }

    /**
     * @param list<float> $blocks K-weighted mean square of 400 ms, every 100 ms, summed over the channels
     *
     * @return ?float LUFS; null where nothing passes the gates
     */
    public static function ofBlocks(array $blocks): ?float
    {
        $mean = self::meanAbove($blocks, self::power(self::ABSOLUTE_GATE));
        $mean = null === $mean ? null : self::meanAbove($blocks, max(self::power(self::ABSOLUTE_GATE), $mean * 10.0 ** (self::RELATIVE_GATE / 10.0)));

        return null === $mean ? null : self::loudness($mean);
    }

    /**
     * EBU Tech 3342: how far the loud parts stand above the soft ones.
     *
     * @param list<float> $stretches K-weighted mean square of 3 s, every 100 ms
     *
     * @return float LU; 0 where nothing passes the gates
     */
    public static function range(array $stretches): float
    {
        $mean = self::meanAbove($stretches, self::power(self::ABSOLUTE_GATE));
        $loud = null === $mean ? [] : self::above($stretches, max(self::power(self::ABSOLUTE_GATE), $mean * 10.0 ** (self::RANGE_GATE / 10.0)));
        sort($loud);
        $last = \count($loud) - 1;

        return $last < 0 ? 0.0 : self::loudness($loud[(int) round(self::HIGH_PERCENTILE * $last)]) - self::loudness($loud[(int) round(self::LOW_PERCENTILE * $last)]);
    }

    /**
     * Two programmes side by side, both over the same moments: those in which the louder of the two passes the gates. Gated each by
     * itself, one with a quieter bed would read louder, since its pauses would no longer count. Own definition, on the same gates.
     *
     * @param list<float> $a K-weighted mean square of each 100 ms
     * @param list<float> $b
     *
     * @return array{?float, ?float} LUFS; null where there is nothing but silence
     */
    public static function sideBySide(array $a, array $b): array
    {
        $count = max(\count($a), \count($b));
        [$a, $b] = [self::blocks(array_pad($a, $count, 0.0)), self::blocks(array_pad($b, $count, 0.0))];
        $louder = array_map(static fn (float $x, float $y): float => max($x, $y), $a, $b);
        $loud = self::above($louder, self::power(self::ABSOLUTE_GATE));
        $gate = [] === $loud ? \INF : self::power(self::loudness(array_sum($loud) / \count($loud)) + self::RELATIVE_GATE);
        $moments = array_filter($louder, static fn (float $power): bool => $power > $gate);
        $over = static function (array $powers) use ($moments): ?float {
            $mean = [] === $moments ? 0.0 : array_sum(array_intersect_key($powers, $moments)) / \count($moments);

            return $mean > 0.0 ? self::loudness($mean) : null;
        };

        return [$over($a), $over($b)];
    }

    /**
     * Means of 100 ms out of blocks of 20 ms; a rest at the end is left out, unless there is nothing else.
     *
     * @param list<float> $powers
     *
     * @return list<float>
     */
    public static function tenths(array $powers): array
    {
        $tenths = [];
        for ($i = 0, $n = \count($powers) - 4; $i < $n; $i += 5) {
            $tenths[] = 0.2 * ($powers[$i] + $powers[$i + 1] + $powers[$i + 2] + $powers[$i + 3] + $powers[$i + 4]);
        }

        return [] === $tenths && [] !== $powers ? [array_sum($powers) / \count($powers)] : $tenths;
    }

    /** @param float $power mean square. @return float LUFS */
    public static function loudness(float $power): float
    {
        return $power > 0.0 ? self::OFFSET + 10.0 * log10($power) : -\INF;
    }

    /**
     * @param array<int, float> $powers
     *
     * @return list<float>
     */
    public static function blocks(array $powers): array
    {
        $n = \count($powers);
        if ($n < Windows::MOMENTARY) {
            return 0 === $n ? [] : [array_sum($powers) / $n];
        }

        return Windows::momentary($powers);
    }

    /**
     * @param list<float> $blocks
     *
     * @return list<float>
     */
    private static function above(array $blocks, float $gate): array
    {
        return array_values(array_filter($blocks, static fn (float $power): bool => $power > $gate));
    }

    /** @param list<float> $powers */
    private static function meanAbove(array $powers, float $gate): ?float
    {
        $sum = 0.0;
        $count = 0;
        foreach ($powers as $power) {
            if ($power > $gate) {
                $sum += $power;
                ++$count;
            }
        }

        return 0 === $count ? null : $sum / $count;
    }

    private static function power(float $loudness): float
    {
        return 10.0 ** (($loudness - self::OFFSET) / 10.0);
    }
}
