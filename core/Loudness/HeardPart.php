<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Time\Span;

/**
 * What of a recording is more than its background, for trimming dead air: from the first to the last moment that stands out of
 * the noise floor, with a little room around it. Own definition; the numbers are common practice for speech.
 */
final class HeardPart
{
    /** The floor is the level that a tenth of the blocks stay below. */
    private const FLOOR_PERCENTILE = 0.1;

    /** dB above the floor, and at most this far below the loudest block. */
    private const ABOVE_FLOOR = 10.0;
    private const BELOW_LOUDEST = -42.0;

    /** A moment counts when three of five blocks, 100 ms, stand out; a click does not. */
    private const OF_FIVE = 3;

    private const ROOM_BEFORE_SECONDS = 0.15;
    private const ROOM_AFTER_SECONDS = 0.35;

    /**
     * @param Span $span source samples to look at
     *
     * @return ?Span source samples; null where nothing stands out
     */
    public static function of(SourceBlocks $blocks, Span $span, int $rate): ?Span
    {
        $frames = intdiv($rate, SourceBlocks::PER_SECOND);
        $first = intdiv($span->from, $frames);
        $levels = array_map(static fn (float $power): float => Gating::loudness($power), \array_slice($blocks->meanPowers(), $first, max(1, intdiv($span->length(), $frames))));
        if ([] === $levels) {
            return null;
        }
        $threshold = self::threshold($levels);
        $heard = [];
        for ($i = 0, $n = \count($levels); $i < $n; ++$i) {
            $standing = array_filter(\array_slice($levels, $i, 5), static fn (float $level): bool => $level > $threshold);
            if (\count($standing) >= min(self::OF_FIVE, $n - $i) && $levels[$i] > $threshold) {
                $heard[] = $i;
            }
        }
        if ([] === $heard) {
            return null;
        }
        $last = end($heard) + 1;
        while (isset($levels[$last]) && $levels[$last] > $threshold) {
            ++$last;
        }

        return Span::of(
            max($span->from, ($first + $heard[0]) * $frames - (int) (self::ROOM_BEFORE_SECONDS * $rate)),
            min($span->to, ($first + $last) * $frames + (int) (self::ROOM_AFTER_SECONDS * $rate)),
        );
    }

    /** @param non-empty-list<float> $levels dB */
    private static function threshold(array $levels): float
    {
        $sorted = $levels;
        sort($sorted);
        $floor = $sorted[(int) (self::FLOOR_PERCENTILE * (\count($sorted) - 1))];
        $loudest = $sorted[\count($sorted) - 1];

        // A recording with hardly any background must not be cut at its quietest word, nor one without pauses at all.
        return min(max($floor + self::ABOVE_FLOOR, $loudest + self::BELOW_LOUDEST), $loudest - 12.0);
    }
}
