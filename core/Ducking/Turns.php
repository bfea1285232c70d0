<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Thinning;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\Series;

/**
 * Several microphones in one room take turns: whoever is spoken into is open, the others give way, two at once stay open, and the powers of all gains add up to one,
 * so that the room is as loud whoever speaks. Gain sharing by power, published by D. Dugan, "Automatic microphone mixing", 1975 [M]; here the shares decide who is
 * open, so that what comes over from the next seat goes down by what was asked for and not by what it happens to be softer.
 */
final class Turns
{
    /** Share of all power from which a microphone is open, and below which it is shut, dB [CP]: two who speak at once have −3, what comes over from the next seat is below −9. */
    private const OPEN = -5.0;
    private const SHUT = -9.0;
    /** dB in 100 ms that a microphone opens and shuts by. */
    private const SPEED = 6.0;
    /** 100 ms that it is open ahead: words begin softly. */
    private const AHEAD = 2;
    private const TOLERANCE = 0.15;

    /**
     * @param array<string, Series> $powers of each track, every 100 ms
     * @param array<string, string> $active a byte for each 100 ms: 1 where somebody is heard on the track
     * @param float $depth dB that those who are silent give way by
     * @param int $hold of 100 ms that one stays open
     * @param int $frames samples of 100 ms
     *
     * @return array<string, Curve> by track
     */
    public static function of(array $powers, array $active, float $depth, int $hold, int $frames): array
    {
        $count = max(0, ...array_map(count(...), array_values($powers)));
        if (0 === $count) {
            return array_map(static fn (): Curve => Curve::flat(), $powers);
        }
        $weights = array_map(static fn (array $row): array => self::around($row, $hold), self::wanted($powers, $active, $depth, $count));
        $weights = array_map(self::slowly(...), self::kept($weights, $depth, $count));
        $points = array_map(static fn (): array => [], $weights);
        for ($k = 0; $k < $count; ++$k) {
            $sum = 0.0;
            foreach ($weights as $row) {
                $sum += 10.0 ** ($row[$k] / 10.0);
            }
            $by = 10.0 * log10($sum);
            foreach ($weights as $id => $row) {
                $points[$id][] = [$k * $frames + intdiv($frames, 2), $row[$k] - $by];
            }
        }

        return array_map(self::curve(...), $points);
    }

    /**
     * @param array<string, Series> $powers
     * @param array<string, string> $active
     *
     * @return array<string, list<float>> dB by 100 ms: 0 for open
     */
    private static function wanted(array $powers, array $active, float $depth, int $count): array
    {
        $weights = array_map(static fn (): array => [], $powers);
        for ($from = 0; $from < $count; $from += Series::AT_ONCE) {
            $pieces = array_map(static fn (Series $row): array => $row->slice(max(0, $from - 1), Series::AT_ONCE + 2), $powers);
            $skipped = $from > 0 ? 1 : 0;
            for ($k = $from, $end = min($count, $from + Series::AT_ONCE); $k < $end; ++$k) {
                $i = $k - $from + $skipped;
                $shares = [];
                foreach ($pieces as $id => $row) {
                    $shares[$id] = ($row[$i - 1] ?? 0.0) + 2.0 * ($row[$i] ?? 0.0) + ($row[$i + 1] ?? 0.0);
                }
                $sum = array_sum($shares);
                foreach ($shares as $id => $power) {
                    $share = $power > 0.0 ? 10.0 * log10($power / $sum) : -\INF;
                    $weights[$id][] = "\1" === ($active[$id][$k] ?? '') ? max($depth, min(0.0, $depth * (self::OPEN - $share) / (self::OPEN - self::SHUT))) : $depth;
                }
            }
        }

        return $weights;
    }

    /**
     * Open ahead of a word, and for a while after it.
     *
     * @param array<int, float> $row
     *
     * @return array<int, float>
     */
    private static function around(array $row, int $hold): array
    {
        $wide = [];
        foreach (array_keys($row) as $k) {
            $first = max(0, $k - $hold);
            $wide[] = max(...\array_slice($row, $first, $k + self::AHEAD + 1 - $first));
        }

        return $wide;
    }

    /**
     * In a pause whoever spoke last stays open; before anybody has, who does first.
     *
     * @param array<string, array<int, float>> $weights
     *
     * @return array<string, array<int, float>>
     */
    private static function kept(array $weights, float $depth, int $count): array
    {
        $last = null;
        for ($k = 0; $k < $count; ++$k) {
            $now = array_map(static fn (array $row): float => $row[$k], $weights);
            if (max($depth, ...array_values($now)) <= $depth) {
                $now = $last ?? $now;
                foreach ($now as $id => $weight) {
                    $weights[$id][$k] = $weight;
                }
                continue;
            }
            foreach (null === $last ? $now : [] as $id => $weight) {
                $weights[$id] = array_replace($weights[$id], array_fill(0, $k, $weight));
            }
            $last = $now;
        }

        return $weights;
    }

    /**
     * @param array<int, float> $row
     *
     * @return array<int, float>
     */
    private static function slowly(array $row): array
    {
        for ($k = 1, $n = \count($row); $k < $n; ++$k) {
            $row[$k] = max($row[$k], $row[$k - 1] - self::SPEED);
        }
        for ($k -= 2; $k >= 0; --$k) {
            $row[$k] = max($row[$k], $row[$k + 1] - self::SPEED);
        }

        return $row;
    }

    /** @param list<array{int, float}> $points */
    private static function curve(array $points): Curve
    {
        return [] === $points ? Curve::flat() : Curve::of(array_map(static fn (array $point): Keyframe => new Keyframe($point[0], Decibels::of($point[1]), Ramp::line()), Thinning::of($points, self::TOLERANCE)));
    }
}
