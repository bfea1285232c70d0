<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Time\Span;

/**
 * When somebody speaks in a recording: where its level stands out of its own background. Own definition; the lengths are common
 * practice for speech.
 */
final class Activity
{
    /** The background at a moment is what a tenth of the seconds around it stay below; a shorter hole in the recording is none. */
    private const QUIET_PART = 0.1;
    private const SECONDS_AROUND = 5;
    private const LOWEST_BACKGROUND = -70.0;

    /** Speech without pauses hides its background. So what is no further than this below the loud parts counts as well, if it moves. */
    private const LOUD_PART = 0.95;
    private const BELOW_LOUD = 12.0;
    private const LEAST_MOVEMENT = 9.0;
    private const LEAST_ABOVE = 6.0;

    /** Once it has begun it goes on until it is this much lower, and has been for a while. */
    private const HYSTERESIS = 3.0;
    private const HANG_OVER_BLOCKS = 12;
    private const SHORTEST_BLOCKS = 5;
    private const BRIDGE_BLOCKS = 15;

    /** Blocks of which two must stand out before it begins; a click is one. */
    private const ONSET = 3;

    /**
     * @param float $sensitivity dB above the background
     *
     * @return list<Span> source samples, apart and in order
     */
    public static function of(SourceBlocks $blocks, int $rate, float $sensitivity): array
    {
        $levels = array_map(static fn (float $power): float => $power > 1e-10 ? Gating::loudness($power) : -100.0, $blocks->meanPowers());
        if ([] === $levels) {
            return [];
        }
        $frames = intdiv($rate, SourceBlocks::PER_SECOND);
        $spans = [];
        foreach (self::joined(self::runs($levels, self::thresholds($levels, $sensitivity))) as [$first, $end]) {
            if ($end - $first >= self::SHORTEST_BLOCKS) {
                $spans[] = Span::of($first * $frames, $end * $frames);
            }
        }

        return $spans;
    }

    /**
     * @param non-empty-list<float> $levels
     *
     * @return list<float> by second
     */
    private static function thresholds(array $levels, float $sensitivity): array
    {
        $sorted = $levels;
        sort($sorted);
        $loud = $sorted[(int) (self::LOUD_PART * (\count($sorted) - 1))];
        $thresholds = [];
        $seconds = intdiv(\count($levels) + SourceBlocks::PER_SECOND - 1, SourceBlocks::PER_SECOND);
        for ($i = 0; $i < $seconds; ++$i) {
            $around = \array_slice($levels, max(0, $i - self::SECONDS_AROUND) * SourceBlocks::PER_SECOND, (2 * self::SECONDS_AROUND + 1) * SourceBlocks::PER_SECOND);
            sort($around);
            $background = max(self::LOWEST_BACKGROUND, $around[(int) (self::QUIET_PART * (\count($around) - 1))] ?? self::LOWEST_BACKGROUND);
            $threshold = $background + $sensitivity;
            $thresholds[] = $loud - $background >= self::LEAST_MOVEMENT ? min($threshold, max($loud - self::BELOW_LOUD, $background + self::LEAST_ABOVE)) : $threshold;
        }

        return $thresholds;
    }

    /**
     * @param list<float> $levels
     * @param list<float> $thresholds by second
     *
     * @return list<array{int, int}> first block, last block + 1
     */
    private static function runs(array $levels, array $thresholds): array
    {
        $runs = [];
        $start = null;
        $last = 0;
        foreach ($levels as $b => $level) {
            $threshold = $thresholds[intdiv($b, SourceBlocks::PER_SECOND)];
            if (null === $start) {
                if ($level > $threshold && (($levels[$b + 1] ?? -100.0) > $threshold || ($levels[$b + self::ONSET - 1] ?? -100.0) > $threshold)) {
                    $start = $last = $b;
                }
            } elseif ($level > $threshold - self::HYSTERESIS) {
                $last = $b;
            } elseif ($b - $last > self::HANG_OVER_BLOCKS) {
                $runs[] = [$start, $last + 1];
                $start = null;
            }
        }

        return null === $start ? $runs : [...$runs, [$start, $last + 1]];
    }

    /**
     * @param list<array{int, int}> $runs
     *
     * @return list<array{int, int}>
     */
    private static function joined(array $runs): array
    {
        $joined = [];
        foreach ($runs as [$first, $end]) {
            $previous = array_pop($joined);
            if (null !== $previous && $first - $previous[1] > self::BRIDGE_BLOCKS) {
                $joined[] = $previous;
                $previous = null;
            }
            $joined[] = [$previous[0] ?? $first, $end];
        }

        return $joined;
    }
}
