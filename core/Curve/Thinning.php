<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/**
 * Leaves out points of a row where straight lines between those that stay keep within a tolerance.
 *
 * Of all ways to do so the one with the fewest points is taken: a shortest way from the first point to the last, where a step
 * from one point to another is allowed when the line between them passes all points between closely enough. From each point
 * the lines that do so form a cone that narrows with every point passed, so each step is told by one comparison.
 */
final class Thinning
{
    /** Points that one line may leave out; bounds the time that long straight rows take. */
    private const REACH = 128;

    /** Beyond this no tolerance goes to make room for a spacing. */
    private const COARSEST = 30.0;

    /** What a step that is too short weighs against a point more: such steps are only taken where nothing else holds the tolerance. */
    private const TOO_NEAR = 1_000_000;

    /**
     * @param list<array{int, float}> $points position and value, positions rising
     * @param float $tolerance by which the lines may differ from the points
     * @param int $spacing samples that the points are kept apart, except where the tolerance could not be held otherwise
     *
     * @return list<array{int, float}> first and last among them
     */
    public static function of(array $points, float $tolerance, int $spacing = 0): array
    {
        $points = self::withoutLevelRuns($points);
        $n = \count($points);
        if ($n < 3) {
            return $points;
        }
        $cost = array_fill(0, $n, \PHP_INT_MAX);
        $from = array_fill(0, $n, 0);
        $cost[0] = 0;
        for ($i = 0; $i < $n - 1; ++$i) {
            [$at, $value] = $points[$i];
            $here = $cost[$i] + 1;
            [$low, $high] = [-\INF, \INF];
            for ($j = $i + 1, $end = min($n, $i + self::REACH); $j < $end; ++$j) {
                [$next, $then] = $points[$j];
                $way = $next - $at;
                $rise = $then - $value;
                $slope = $rise / $way;
                if ($slope >= $low && $slope <= $high) {
                    $sum = $way < $spacing ? $here + self::TOO_NEAR : $here;
                    if ($sum < $cost[$j]) {
                        $cost[$j] = $sum;
                        $from[$j] = $i;
                    }
                }
                $low = max($low, ($rise - $tolerance) / $way);
                $high = min($high, ($rise + $tolerance) / $way);
                if ($low > $high) {
                    break;
                }
            }
        }
        $kept = [];
        for ($i = $n - 1; $i > 0; $i = $from[$i]) {
            $kept[] = $points[$i];
        }
        $kept[] = $points[0];

        return array_reverse($kept);
    }

    /**
     * As of(), but the spacing holds, and the tolerance gives way as little as that takes. Only a step keeps two points that are nearer.
     *
     * @param list<array{int, float}> $points position and value, positions rising
     * @param float $tolerance by which the lines may differ at least
     * @param int $step samples of a step: what is no longer than that is one
     *
     * @return array{list<array{int, float}>, float} first and last among them, and the tolerance that was taken
     */
    public static function apart(array $points, float $tolerance, int $spacing, int $step): array
    {
        $high = max($tolerance, 1e-3);
        while (self::isTooNear($kept = self::of($points, $high, $spacing), $spacing, $step) && $high < self::COARSEST) {
            $high *= 2.0;
        }
        if ($high <= $tolerance) {
            return [$kept, $tolerance];
        }
        // Between the last that was too fine and the first that is coarse enough, to a twentieth.
        $low = $high / 2.0;
        while ($high - $low > 0.05 * $low) {
            $middle = 0.5 * ($low + $high);
            $finer = self::of($points, $middle, $spacing);
            if (self::isTooNear($finer, $spacing, $step)) {
                $low = $middle;
            } else {
                [$high, $kept] = [$middle, $finer];
            }
        }

        return [$kept, $high];
    }

    /** @param list<array{int, float}> $points */
    private static function isTooNear(array $points, int $spacing, int $step): bool
    {
        for ($i = 1, $n = \count($points); $i < $n; ++$i) {
            $gap = $points[$i][0] - $points[$i - 1][0];
            // The last one stands where the pass ends.
            if ($gap < $spacing && $gap > $step && $i < $n - 1) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param list<array{int, float}> $points
     *
     * @return list<array{int, float}> of each run of the very same value, the first and the last
     */
    private static function withoutLevelRuns(array $points): array
    {
        $kept = [];
        $last = \count($points) - 1;
        foreach ($points as $i => $point) {
            $isInner = $i > 0 && $i < $last && $points[$i - 1][1] === $point[1] && $points[$i + 1][1] === $point[1];
            if (!$isInner) {
                $kept[] = $point;
            }
        }

        return $kept;
    }
}
