<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Time\Span;

/**
 * When somebody speaks in a recording: where its level stands out of its own background. Own definition; the lengths are common
 * practice for speech.
 */
final class Activity
{
    // Levels are hundredths of a dB here.

    /** Speech without pauses hides its background. So what is no further than this below the loud parts counts as well, if it moves. */
    private const BELOW_LOUD = 1200;
    private const LEAST_MOVEMENT = 900;
    private const LEAST_ABOVE = 600;

    /** Once it has begun it goes on until it is this much lower, and has been for a while. */
    private const HYSTERESIS = 300;
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
        return self::in(SpeechLevels::of($blocks), $rate, $sensitivity);
    }

    /**
     * @param float $sensitivity dB above the background
     *
     * @return list<Span> source samples, apart and in order
     */
    public static function in(SpeechLevels $levels, int $rate, float $sensitivity): array
    {
        $frames = intdiv($rate, SourceBlocks::PER_SECOND);
        $spans = [];
        foreach (self::joined(self::runs($levels, self::thresholds($levels, (int) round(100 * $sensitivity)))) as [$first, $end]) {
            if ($end - $first >= self::SHORTEST_BLOCKS) {
                $spans[] = Span::of($first * $frames, $end * $frames);
            }
        }

        return $spans;
    }

    /** @return list<int> by second */
    private static function thresholds(SpeechLevels $levels, int $sensitivity): array
    {
        $loud = $levels->loud;

        return array_map(static function (int $background) use ($loud, $sensitivity): int {
            $threshold = $background + $sensitivity;

            return $loud - $background >= self::LEAST_MOVEMENT ? min($threshold, max($loud - self::BELOW_LOUD, $background + self::LEAST_ABOVE)) : $threshold;
        }, $levels->backgrounds);
    }

    /**
     * @param list<int> $thresholds by second
     *
     * @return list<array{int, int}> first block, last block + 1
     */
    private static function runs(SpeechLevels $levels, array $thresholds): array
    {
        $runs = [];
        $start = null;
        $last = 0;
        for ($first = 0; $first < $levels->count; $first += SpeechLevels::AT_ONCE) {
            // With those after it that its last ones need to be seen with.
            $some = $levels->levels($first, SpeechLevels::AT_ONCE + self::ONSET);
            $threshold = 0;
            for ($i = 0, $n = min(SpeechLevels::AT_ONCE, \count($some)); $i < $n; ++$i) {
                $level = $some[$i];
                if (0 === $i % SourceBlocks::PER_SECOND) {
                    $threshold = $thresholds[intdiv($first + $i, SourceBlocks::PER_SECOND)];
                }
                if (null === $start) {
                    if ($level > $threshold && (($some[$i + 1] ?? SpeechLevels::SILENCE) > $threshold || ($some[$i + self::ONSET - 1] ?? SpeechLevels::SILENCE) > $threshold)) {
                        $start = $last = $first + $i;
                    }
                } elseif ($level > $threshold - self::HYSTERESIS) {
                    $last = $first + $i;
                } elseif ($first + $i - $last > self::HANG_OVER_BLOCKS) {
                    $runs[] = [$start, $last + 1];
                    $start = null;
                }
            }
        }
        if (null !== $start) {
            $runs[] = [$start, $last + 1];
        }

        return $runs;
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
