<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/**
 * Active speech level as ITU-T P.56, method B: an envelope of two smoothings of 30 ms, counted above thresholds an octave apart, each
 * with 200 ms of hang-over; the level is where that of the counted time stands 15.9 dB over the threshold. The constants are recalled
 * from memory.
 */
final class ActiveLevel
{
    private const SMOOTHING = 0.03;
    private const HANG_OVER = 0.2;
    private const MARGIN = 15.9;
    private const THRESHOLDS = 15;

    /**
     * @param array<int, float> $samples one channel, full scale is 1
     *
     * @return array{float, float} level in dB relative to full scale (RMS), and the part of the time that is active
     */
    public static function of(array $samples, int $rate): array
    {
        $g = exp(-1.0 / ($rate * self::SMOOTHING));
        $hangOver = (int) (self::HANG_OVER * $rate);
        $thresholds = array_map(static fn (int $j): float => 2.0 ** -$j, range(1, self::THRESHOLDS));
        $counts = $since = array_fill(0, self::THRESHOLDS, 0);
        $since = array_fill(0, self::THRESHOLDS, $hangOver);
        $p = $q = $sum = 0.0;
        foreach ($samples as $x) {
            $sum += $x * $x;
            $p = $g * $p + (1.0 - $g) * abs($x);
            $q = $g * $q + (1.0 - $g) * $p;
            foreach ($thresholds as $j => $threshold) {
                if ($q >= $threshold) {
                    ++$counts[$j];
                    $since[$j] = 0;
                } elseif ($since[$j] < $hangOver) {
                    ++$since[$j];
                    ++$counts[$j];
                }
            }
        }
        $before = null;
        foreach ($thresholds as $j => $threshold) {
            if (0 === $counts[$j]) {
                continue;
            }
            $level = 10.0 * log10($sum / $counts[$j]);
            $over = $level - 20.0 * log10($threshold);
            if ($over >= self::MARGIN) {
                $part = null === $before ? 0.0 : ($over - self::MARGIN) / ($over - $before[1]);
                $level -= null === $before ? 0.0 : $part * ($level - $before[0]);

                return [$level, $sum / (10.0 ** ($level / 10.0)) / \count($samples)];
            }
            $before = [$level, $over];
        }

        return [-100.0, 0.0];
    }
}
