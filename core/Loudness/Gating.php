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

    public const ABSOLUTE_GATE = -70.0;
    private const RELATIVE_GATE = -10.0;

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
     * Two programmes side by side, both over the same moments: those in which the louder of the two passes the gates. Gated each by
     * itself, one with a quieter bed would read louder, since its pauses would no longer count. Own definition, on the same gates.
     *
     * @param Series $a K-weighted mean square of each 100 ms
     *
     * @return array{?float, ?float} LUFS; null where there is nothing but silence
     */
    public static function sideBySide(Series $a, Series $b): array
    {
        $count = max(\count($a), \count($b));
        [$a, $b] = [Series::sum([[$a, 1.0]], $count), Series::sum([[$b, 1.0]], $count)];
        // The gate first, then what passes it.
        [$louder] = self::meansWhere($a, $b, self::power(self::ABSOLUTE_GATE));
        [, $ofA, $ofB] = self::meansWhere($a, $b, null === $louder ? \INF : self::power(self::loudness($louder) + self::RELATIVE_GATE));
        $loudness = static fn (?float $power): ?float => null !== $power && $power > 0.0 ? self::loudness($power) : null;

        return [$loudness($ofA), $loudness($ofB)];
    }

    /** @return array{?float, ?float, ?float} means of the louder of both, of a and of b over the moments in which the louder is above a gate */
    private static function meansWhere(Series $a, Series $b, float $gate): array
    {
        $count = 0;
        $sums = [0.0, 0.0, 0.0];
        $others = Windows::along($b, Windows::MOMENTARY);
        foreach (Windows::along($a, Windows::MOMENTARY) as $moments) {
            $other = $others->current();
            $others->next();
            foreach ($moments as $i => $power) {
                $louder = max($power, $other[$i]);
                if ($louder > $gate) {
                    ++$count;
                    $sums = [$sums[0] + $louder, $sums[1] + $power, $sums[2] + $other[$i]];
                }
            }
        }

        return 0 === $count ? [null, null, null] : array_map(static fn (float $sum): float => $sum / $count, $sums);
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
