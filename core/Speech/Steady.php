<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Timeline\Clip;

/**
 * Levels speech inside a clip: brings its moving average to one level, and writes keyframes that can be edited like any others. Only moments at which
 * somebody speaks are measured, and only they are lifted, no peak above a ceiling. What is no speech, room noise and bangs in pauses, is never lifted.
 */
final readonly class Steady
{
    public const SHORTEST_WINDOW = 0.5;
    public const LONGEST_WINDOW = 10.0;
    public const USUAL_WINDOW = 3.0;

    /** dB that it may lift and lower, at most and usually. */
    public const MOST_UP = Decibels::MAX_CLIP;
    public const USUAL_UP = 9.0;
    public const MOST_DOWN = 60.0;
    public const USUAL_DOWN = 12.0;

    /** dB that keyframes may be off. */
    public const LEAST_TOLERANCE = 0.1;
    public const MOST_TOLERANCE = 6.0;
    public const USUAL_TOLERANCE = 0.5;

    /** dBFS that no peak is lifted above. */
    public const LOWEST_CEILING = -20.0;
    public const USUAL_CEILING = -3.0;

    /** dB that pauses are hushed by, where they are. */
    public const MOST_HUSH = 24.0;
    public const USUAL_HUSH = 6.0;

    /** A pause is one from so many tenths on; the speech around it keeps its level for so many more. */
    private const SHORTEST_PAUSE = 4;
    private const MARGIN = 1;
    /** dB per second: faster would be heard as such. */
    private const STEEPEST = 9.0;

    /** A correction shifts what the next window measures, so that it is looked at again. */
    private const PASSES = 3;

    /**
     * @param float $window seconds of the moving average
     * @param ?float $target dBFS; null for the clip's own average
     * @param float $up dB that it may lift, at most
     * @param float $down dB that it may lower, at most
     * @param float $tolerance dB that the keyframes may be off the correction, where that takes no more than one in two seconds
     * @param float $hush dB that pauses are lowered by, where they are hushed
     * @param float $ceiling dBFS that no peak is lifted above
     */
    public function __construct(
        private float $window = self::USUAL_WINDOW,
        private ?float $target = null,
        private float $up = self::USUAL_UP,
        private float $down = self::USUAL_DOWN,
        private float $tolerance = self::USUAL_TOLERANCE,
        private Pauses $pauses = Pauses::Follow,
        private float $hush = self::USUAL_HUSH,
        private float $ceiling = self::USUAL_CEILING,
    ) {
    }

    /**
     * @param array<int, float> $powers of the clip as it is, every 100 ms from its start
     * @param string $active as {@see SpeechTimes::tenths()} has it: when somebody speaks
     * @param array<int, float> $limits dB that each 100 ms may be lifted by, as {@see limits()} has them
     *
     * @return array<int, float> dB for every 100 ms; empty where nobody speaks
     */
    public function correction(array $powers, string $active, array $limits = []): array
    {
        $speaking = array_values(array_filter(array_keys($powers), static fn (int $k): bool => "\1" === $active[$k] && $powers[$k] > 0.0));
        if ([] === $speaking) {
            return [];
        }
        $mean = array_sum(array_map(static fn (int $k): float => $powers[$k], $speaking)) / \count($speaking);
        $target = $this->target ?? Gating::loudness($mean);
        $correction = array_fill(0, \count($powers), 0.0);
        for ($pass = 0; $pass < self::PASSES; ++$pass) {
            foreach ($this->averages($powers, $correction, $speaking) as $k => $level) {
                $correction[$k] = max(-$this->down, min($this->up, $correction[$k] + $target - $level));
            }
            $correction = self::gentle(self::within($limits, $this->smoothed(self::acrossPauses($correction, $speaking))));
        }

        return $this->withPauses($correction, $active);
    }

    /**
     * How far each 100 ms may be lifted before its peak meets the ceiling, or that of the one before or after: what is lifted goes on from the middle of
     * one to the middle of the next. What is above the ceiling already is not lifted at all.
     *
     * @param array<int, float> $peaks every 100 ms of the clip as it is, full scale is 1
     *
     * @return list<float> dB, 0 or more
     */
    public function limits(array $peaks): array
    {
        return array_map(fn (int $k, float $peak): float => max(0.0, $this->ceiling - 20.0 * log10(max(1e-9, $peak, $peaks[$k - 1] ?? 0.0, $peaks[$k + 1] ?? 0.0))), array_keys($peaks), $peaks);
    }

    /**
     * The curve of the clip with a correction on top, thinned.
     *
     * @param array<int, float> $correction dB for every 100 ms from the start of the clip
     * @param array<int, float> $limits as in {@see correction()}: these hold whatever the tolerance
     */
    public function curve(Clip $clip, array $correction, int $rate, array $limits = []): Curve
    {
        return CorrectedCurve::of($clip, $correction, $rate, $this->tolerance, $limits);
    }

    /**
     * Standard deviation of the short-term level while somebody speaks: how uneven it is.
     *
     * @param array<int, float> $powers every 100 ms
     * @param string $active likewise
     *
     * @return ?float dB; null where nobody speaks
     */
    public static function unevenness(array $powers, string $active): ?float
    {
        $speaking = array_values(array_filter(array_keys($powers), static fn (int $k): bool => "\1" === $active[$k] && $powers[$k] > 0.0));
        if ([] === $speaking) {
            return null;
        }
        $levels = array_values((new self())->averages($powers, array_fill(0, \count($powers), 0.0), $speaking));
        $mean = array_sum($levels) / \count($levels);

        return sqrt(array_sum(array_map(static fn (float $level): float => ($level - $mean) ** 2, $levels)) / \count($levels));
    }

    /**
     * Moving average of what is spoken around each moment, mirrored at the ends.
     *
     * @param array<int, float> $powers
     * @param array<int, float> $correction
     * @param non-empty-list<int> $speaking
     *
     * @return array<int, float> dBFS by number of the 100 ms
     */
    private function averages(array $powers, array $correction, array $speaking): array
    {
        $n = \count($powers);
        $half = max(1, (int) round($this->window * TrackPower::TENTHS_PER_SECOND / 2));
        $sums = [0.0];
        $counts = [0];
        $spoken = array_flip($speaking);
        for ($i = -$half; $i < $n + $half; ++$i) {
            $k = $i < 0 ? -$i - 1 : ($i >= $n ? 2 * $n - 1 - $i : $i);
            $here = isset($spoken[$k]);
            $sums[] = $sums[$i + $half] + ($here ? $powers[$k] * 10.0 ** ($correction[$k] / 10.0) : 0.0);
            $counts[] = $counts[$i + $half] + ($here ? 1 : 0);
        }
        $averages = [];
        foreach ($speaking as $k) {
            $count = $counts[$k + 2 * $half] - $counts[$k];
            $averages[$k] = Gating::loudness(max(1e-12, ($sums[$k + 2 * $half] - $sums[$k]) / max(1, $count)));
        }

        return $averages;
    }

    /**
     * @param array<int, float> $correction
     * @param non-empty-list<int> $speaking
     *
     * @return array<int, float>
     */
    private static function acrossPauses(array $correction, array $speaking): array
    {
        $n = \count($correction);
        $before = null;
        foreach ([...$speaking, $n] as $k) {
            $from = $before ?? -1;
            for ($i = $from + 1; $i < $k; ++$i) {
                $correction[$i] = match (true) {
                    null === $before => $correction[$k] ?? 0.0,
                    $k === $n => $correction[$before],
                    default => $correction[$before] + ($correction[$k] - $correction[$before]) * ($i - $before) / ($k - $before),
                };
            }
            $before = $k;
        }

        return $correction;
    }

    /**
     * Pauses of some length are never lifted; what is heard right before and after them still belongs to the speech.
     *
     * @param array<int, float> $correction
     *
     * @return array<int, float>
     */
    private function withPauses(array $correction, string $active): array
    {
        $n = \count($correction);
        preg_match_all('/\x00{'.self::SHORTEST_PAUSE.',}/', substr($active, 0, $n), $found, \PREG_OFFSET_CAPTURE);
        foreach ($found[0] as [$pause, $first]) {
            $end = $first + \strlen($pause);
            $from = 0 === $first ? 0 : $first + self::MARGIN;
            $to = $end === $n ? $n : $end - self::MARGIN;
            for ($k = $from; $k < $to; ++$k) {
                $correction[$k] = match ($this->pauses) {
                    Pauses::Keep => 0.0,
                    Pauses::Follow => min(0.0, $correction[$k]),
                    Pauses::Hush => -$this->hush,
                };
            }
        }

        return $correction;
    }

    /**
     * No higher than allowed, nor right beside it.
     *
     * @param array<int, float> $limits
     * @param array<int, float> $correction
     *
     * @return array<int, float>
     */
    private static function within(array $limits, array $correction): array
    {
        foreach ($limits as $k => $limit) {
            foreach ([$k - 1, $k, $k + 1] as $near) {
                if (isset($correction[$near]) && $correction[$near] > $limit) {
                    $correction[$near] = $limit;
                }
            }
        }

        return $correction;
    }

    /**
     * What moves faster than a third of the window is the speech itself, not its level.
     *
     * @param array<int, float> $correction
     *
     * @return array<int, float>
     */
    private function smoothed(array $correction): array
    {
        $n = \count($correction);
        $half = max(1, (int) round($this->window * TrackPower::TENTHS_PER_SECOND / 6));
        $sums = [0.0];
        for ($i = 0; $i < $n; ++$i) {
            $sums[] = $sums[$i] + $correction[$i];
        }
        $smooth = [];
        for ($i = 0; $i < $n; ++$i) {
            $from = max(0, $i - $half);
            $to = min($n, $i + $half + 1);
            $smooth[] = ($sums[$to] - $sums[$from]) / ($to - $from);
        }

        return $smooth;
    }

    /**
     * No steeper than the limit, by lifting less where it would be.
     *
     * @param array<int, float> $correction
     *
     * @return array<int, float>
     */
    private static function gentle(array $correction): array
    {
        $step = self::STEEPEST / TrackPower::TENTHS_PER_SECOND;
        $n = \count($correction);
        for ($k = 1; $k < $n; ++$k) {
            $correction[$k] = min($correction[$k], $correction[$k - 1] + $step);
        }
        for ($k = $n - 2; $k >= 0; --$k) {
            $correction[$k] = min($correction[$k], $correction[$k + 1] + $step);
        }

        return $correction;
    }
}
