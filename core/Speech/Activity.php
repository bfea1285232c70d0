<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Aim;

/**
 * When somebody speaks in a recording: where it sounds like speech, and, where its level stands out of its own background there, from the moment it does
 * to the moment it does no more. Of a recording whose sound nobody has judged, its level alone. Own definition; the lengths are common practice for speech.
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

    /** What the sound must speak for at the usual sensitivity, dB of odds; it goes on until it speaks for so much less. */
    private const ODDS = -1.0;
    private const LESS = 2.0;
    private const SHORTEST_LIKELY_BLOCKS = 6;
    /** Blocks of a record of chances. */
    private const BLOCKS = 2;
    /** Where the loud parts are so far above the background, the level says exactly where it begins and ends, if that is no further off than so many blocks. */
    private const CLEAN = 2600;
    private const NEAR_BLOCKS = 7;

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
     * @param float $sensitivity dB that the level must be above the background, and what is said of the sound above even odds, where 10 dB are usual: less takes more for speech
     * @param ?SpeechChance $chance how much it sounds like speech; null where nobody knows
     *
     * @return list<Span> source samples, apart and in order
     */
    public static function in(SpeechLevels $levels, int $rate, float $sensitivity, ?SpeechChance $chance = null): array
    {
        $frames = intdiv($rate, SourceBlocks::PER_SECOND);
        $runs = array_filter(self::joined(self::runs($levels, self::thresholds($levels, (int) round(100 * $sensitivity)))), static fn (array $run): bool => $run[1] - $run[0] >= self::SHORTEST_BLOCKS);
        if (null !== $chance) {
            $clean = array_filter($runs, static fn (array $run): bool => $levels->loud - $levels->backgrounds[intdiv($run[0], SourceBlocks::PER_SECOND)] >= self::CLEAN);
            $runs = self::exactly(self::likely($chance, $sensitivity - Aim::USUAL_SENSITIVITY + self::ODDS), $clean, $levels->count);
        }

        return array_values(array_map(static fn (array $run): Span => Span::of($run[0] * $frames, $run[1] * $frames), $runs));
    }

    /**
     * @param float $odds dB
     *
     * @return list<array{int, int}> first block, last block + 1
     */
    private static function likely(SpeechChance $chance, float $odds): array
    {
        $byte = static fn (float $odds): int => (int) ceil(SpeechChance::SURE / (1.0 + 10.0 ** (-$odds / 10.0)));
        [$begins, $ends] = [$byte($odds), $byte($odds - self::LESS)];
        $runs = [];
        $start = null;
        for ($i = 0, $n = $chance->count(); $i < $n; ++$i) {
            $likely = \ord($chance->bytes[$i]);
            if (null === $start && $likely >= $begins) {
                $start = $i;
            } elseif (null !== $start && $likely < $ends) {
                $runs[] = [self::BLOCKS * $start, self::BLOCKS * $i];
                $start = null;
            }
        }
        if (null !== $start) {
            $runs[] = [self::BLOCKS * $start, self::BLOCKS * $n];
        }

        return array_values(array_filter(self::joined($runs), static fn (array $run): bool => $run[1] - $run[0] >= self::SHORTEST_LIKELY_BLOCKS));
    }

    /**
     * @param list<array{int, int}> $likely
     * @param array<int, array{int, int}> $loud where the level stands out
     * @param int $count blocks of the recording
     *
     * @return list<array{int, int}>
     */
    private static function exactly(array $likely, array $loud, int $count): array
    {
        $begins = array_column($loud, 0);
        $ends = array_column($loud, 1);
        $exact = [];
        $b = $e = 0;
        foreach ($likely as [$first, $end]) {
            $first = self::nearest($first, $begins, $b);
            $end = min($count, self::nearest($end, $ends, $e));
            $before = array_pop($exact);
            if (null !== $before && $before[1] < $first) {
                $exact[] = $before;
                $before = null;
            }
            if ($first < $end) {
                $exact[] = [$before[0] ?? $first, $end];
            } elseif (null !== $before) {
                $exact[] = $before;
            }
        }

        return $exact;
    }

    /**
     * @param list<int> $edges in order
     * @param int $at of the edges; where the last search ended
     */
    private static function nearest(int $block, array $edges, int &$at): int
    {
        while (isset($edges[$at]) && $edges[$at] < $block - self::NEAR_BLOCKS) {
            ++$at;
        }
        $best = null;
        for ($k = $at; isset($edges[$k]) && $edges[$k] <= $block + self::NEAR_BLOCKS; ++$k) {
            $best = null === $best || abs($edges[$k] - $block) < abs($best - $block) ? $edges[$k] : $best;
        }

        return $best ?? $block;
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
