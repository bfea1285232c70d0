<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Thinning;
use Wattage\Core\Level\Decibels;

/**
 * A lane that is down as far as each moment needs: the highest one that is nowhere above what is needed and moves no faster than it may. It comes down more than
 * twice as fast as it goes up again, since before a word there is something to make room for, and after it nothing to be in a hurry for [CP].
 */
final class Course
{
    /** dB a second that it goes down, and up again. */
    public const DOWN = 30.0;
    public const UP = 12.0;
    /** What 100 ms need is measured with the 200 before and the 100 after: so the lane is down 100 ms ahead. */
    private const EDGES = [-1, 0, 1];
    /** dB by which its lines may lie off; it is laid lower by as much, so that it is never short. */
    private const TOLERANCE = 0.4;

    /**
     * @param array<int, float> $levels dB by number of the 100 ms, in any order; 0 dB where there is none
     * @param int $frames samples of 100 ms
     */
    public static function of(array $levels, int $frames): Curve
    {
        $low = array_filter($levels, static fn (float $level): bool => $level < 0.0);
        if ([] === $low) {
            return Curve::flat();
        }
        ksort($low);
        $points = [];
        foreach (self::runs($low) as $run) {
            array_push($points, ...self::lines($run, $frames));
        }
        $keyframes = [];
        foreach ($points as [$at, $level]) {
            // Down to a whole hundredth, which nobody hears and which takes half as much to write down.
            $keyframes[] = new Keyframe($at, Decibels::of(floor(100.0 * $level) / 100.0), Ramp::line());
        }

        return Curve::of($keyframes);
    }

    /**
     * The lane of the band of speech, where both together would go below a limit only as far as that: the one of all of it has then done what the band need not.
     *
     * @param Curve $all of all of it
     * @param float $deepest dB
     */
    public static function within(Curve $band, Curve $all, float $deepest): Curve
    {
        if ($band->isFlat() || $all->isFlat()) {
            return $band;
        }
        $places = [];
        foreach ([...$band->keyframes, ...$all->keyframes] as $keyframe) {
            $places[$keyframe->position] = true;
        }
        ksort($places);
        $places = array_keys($places);
        [$bands, $alls] = [$band->levelsAt($places), $all->levelsAt($places)];
        $own = array_fill_keys(array_column($band->keyframes, 'position'), true);
        $held = array_map(static fn (float $of, float $all): bool => $of < $deepest - $all, $bands, $alls);
        $keyframes = [];
        foreach ($places as $i => $at) {
            // Beside its own keyframes, those where the limit begins to hold it, and holds it, and no more.
            if (isset($own[$at]) || $held[$i] || ($held[$i - 1] ?? false) || ($held[$i + 1] ?? false)) {
                $keyframes[] = new Keyframe($at, Decibels::of($held[$i] ? min(0.0, ceil(100.0 * ($deepest - $alls[$i])) / 100.0) : $bands[$i]), Ramp::line());
            }
        }

        return Curve::of($keyframes);
    }

    /**
     * @param non-empty-array<int, float> $low by number, rising
     *
     * @return list<array<int, float>> stretches between which it is up again; levels where 100 ms begin
     */
    private static function runs(array $low): array
    {
        $edges = [];
        foreach ($low as $k => $level) {
            foreach (self::EDGES as $beside) {
                $edge = max(0, $k + $beside);
                $edges[$edge] = min($level, $edges[$edge] ?? 0.0);
            }
        }
        [$up, $down] = [self::UP / 10.0, self::DOWN / 10.0];
        $ways = [];
        foreach ($edges as $edge => $level) {
            for ($k = $edge, $now = $level - self::TOLERANCE; $now < 0.0 && $now < ($ways[$k] ?? 1.0); ++$k, $now += $up) {
                $ways[$k] = $now;
            }
            for ($k = $edge - 1, $now = $level - self::TOLERANCE + $down; $k >= 0 && $now < 0.0 && $now < ($ways[$k] ?? 1.0); --$k, $now += $down) {
                $ways[$k] = $now;
            }
        }
        ksort($ways);
        $runs = [];
        $last = null;
        foreach ($ways as $k => $level) {
            if (null === $last || $k > $last + 2) {
                $runs[] = [];
            } elseif ($k > $last + 1) {
                $runs[\count($runs) - 1][$k - 1] = 0.0; // up again for one moment only
            }
            $runs[\count($runs) - 1][$k] = $level;
            $last = $k;
        }

        return $runs;
    }

    /**
     * @param array<int, float> $run
     *
     * @return list<array{int, float}>
     */
    private static function lines(array $run, int $frames): array
    {
        $first = (int) array_key_first($run);
        $last = (int) array_key_last($run);
        $points = 0 === $first ? [] : [[($first - 1) * $frames, 0.0]];
        foreach ($run as $k => $level) {
            $points[] = [$k * $frames, $level];
        }
        $points[] = [($last + 1) * $frames, 0.0];

        return Thinning::of($points, self::TOLERANCE);
    }
}
