<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/** Leaves out points of a row where straight lines between those that stay keep within a tolerance (Ramer, Douglas and Peucker). */
final class Thinning
{
    private const PIECE = 512;

    /**
     * @param list<array{int, float}> $points position and dB, positions rising
     * @param float $tolerance dB that the lines may differ from the points
     *
     * @return list<array{int, float}> first and last among them
     */
    public static function of(array $points, float $tolerance): array
    {
        $n = \count($points);
        if ($n < 3) {
            return $points;
        }
        $kept = [0 => true, $n - 1 => true];
        $parts = [[0, $n - 1]];
        while ([] !== $parts) {
            [$first, $last] = array_pop($parts);
            [$farthest, $distance] = self::farthest($points, $first, $last);
            if ($distance > $tolerance) {
                $kept[$farthest] = true;
                array_push($parts, [$first, $farthest], [$farthest, $last]);
            }
        }
        ksort($kept);

        return array_map(static fn (int $i): array => $points[$i], array_keys($kept));
    }

    /**
     * As of(), and the points that stay are kept apart, as long as the tolerance can be held that way.
     *
     * @param non-empty-list<array{int, float}> $points position and value, positions rising
     * @param int $spacing samples
     *
     * @return non-empty-list<array{int, float}> first and last among them
     */
    public static function spaced(array $points, float $tolerance, int $spacing): array
    {
        $n = \count($points);
        // Looked at in pieces, since long rows would be gone through many times over.
        $seams = [];
        for ($i = 0; $i < $n - 1; $i += self::PIECE) {
            $seams[] = $i;
        }
        $seams[] = $n - 1;
        $kept = array_fill_keys($seams, true);
        $parts = [];
        for ($i = 1, $count = \count($seams); $i < $count; ++$i) {
            $parts[] = [$seams[$i - 1], $seams[$i]];
        }
        while ([] !== $parts) {
            [$first, $last] = array_pop($parts);
            [$farthest, $distance] = self::farthest($points, $first, $last);
            if ($distance <= $tolerance || $last - $first < 2) {
                continue;
            }
            $split = self::awayFromEnds($points, $first, $last, $farthest, $spacing);
            $kept[$split] = true;
            array_push($parts, [$first, $split], [$split, $last]);
        }
        ksort($kept);

        return array_map(static fn (int $i): array => $points[$i], self::withoutSeams($points, array_keys($kept), $tolerance));
    }

    /**
     * @param non-empty-list<array{int, float}> $points
     * @param list<int> $kept in order
     *
     * @return non-empty-list<int> those that are needed for more than that a piece ended there
     */
    private static function withoutSeams(array $points, array $kept, float $tolerance): array
    {
        $needed = [0];
        for ($i = 1, $last = \count($kept) - 1; $i < $last; ++$i) {
            $isSeam = 0 === $kept[$i] % self::PIECE;
            if (!$isSeam || self::farthest($points, $needed[\count($needed) - 1], $kept[$i + 1])[1] > $tolerance) {
                $needed[] = $kept[$i];
            }
        }
        if (\count($points) > 1) {
            $needed[] = \count($points) - 1;
        }

        return $needed;
    }

    /**
     * @param list<array{int, float}> $points
     *
     * @return int the point nearest to the wanted one that leaves room on both sides; the wanted one where none does
     */
    private static function awayFromEnds(array $points, int $first, int $last, int $wanted, int $spacing): int
    {
        [$from, $to] = [$points[$first][0] + $spacing, $points[$last][0] - $spacing];
        if ($from > $to || ($points[$wanted][0] >= $from && $points[$wanted][0] <= $to)) {
            return $wanted;
        }
        $step = $points[$wanted][0] < $from ? 1 : -1;
        for ($i = $wanted; $i > $first && $i < $last; $i += $step) {
            if ($points[$i][0] >= $from && $points[$i][0] <= $to) {
                return $i;
            }
        }

        return $wanted;
    }

    /**
     * @param list<array{int, float}> $points
     *
     * @return array{int, float} index, dB off the line from first to last
     */
    private static function farthest(array $points, int $first, int $last): array
    {
        [$from, $start] = $points[$first];
        [$to, $end] = $points[$last];
        $slope = ($end - $start) / max(1, $to - $from);
        $base = $start - $slope * $from;
        $farthest = $first;
        $distance = 0.0;
        for ($i = $first + 1; $i < $last; ++$i) {
            $off = abs($points[$i][1] - $base - $slope * $points[$i][0]);
            if ($off > $distance) {
                $farthest = $i;
                $distance = $off;
            }
        }

        return [$farthest, $distance];
    }
}
