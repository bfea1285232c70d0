<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Generator;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;

/**
 * What of a recording is more than its background, for trimming dead air: from the first to the last moment that stands out of
 * the noise floor, with a little room around it. Own definition; the numbers are common practice for speech.
 */
final class HeardPart
{
    /** The floor is the level that a tenth of the blocks stay below. */
    private const FLOOR_PERCENTILE = 0.1;

    // Levels are hundredths of a dB here.
    /** Above the floor, and at most this far below the loudest block, and at least that far. */
    private const ABOVE_FLOOR = 1000;
    private const BELOW_LOUDEST = 4200;
    private const LEAST_BELOW_LOUDEST = 1200;

    /** A moment counts when three of five blocks, 100 ms, stand out; a click does not. */
    private const OF_FIVE = 3;
    private const FIVE = 5;

    private const ROOM_BEFORE_SECONDS = 0.15;
    private const ROOM_AFTER_SECONDS = 0.35;

    /**
     * @param Span $span source samples to look at
     * @param list<Span> $speech source samples at which somebody speaks, apart and in order: of a recording that is for that, slams and handling before and after are none of it
     *
     * @return ?Span source samples; null where nothing stands out
     */
    public static function of(SpeechLevels $levels, Span $span, int $rate, array $speech = []): ?Span
    {
        $spoken = Spans::within($speech, $span);
        if ([] !== $spoken) {
            return self::withRoom($spoken[0]->from, $spoken[\count($spoken) - 1]->to, $span, $rate);
        }
        $frames = intdiv($rate, SourceBlocks::PER_SECOND);
        $first = intdiv($span->from, $frames);
        $count = min(max(1, intdiv($span->length(), $frames)), $levels->count - $first);
        $heard = $count > 0 ? self::heard($levels, $first, $count, self::threshold($levels, $first, $count)) : null;

        return null === $heard ? null : self::withRoom($heard[0] * $frames, $heard[1] * $frames, $span, $rate);
    }

    private static function withRoom(int $from, int $to, Span $span, int $rate): Span
    {
        return Span::of(max($span->from, $from - (int) (self::ROOM_BEFORE_SECONDS * $rate)), min($span->to, $to + (int) (self::ROOM_AFTER_SECONDS * $rate)));
    }

    /** @return ?array{int, int} first block, last block + 1 */
    private static function heard(SpeechLevels $levels, int $first, int $count, int $threshold): ?array
    {
        $start = null;
        $end = 0;
        foreach (self::pieces($levels, $first, $count) as $from => $some) {
            for ($i = 0, $n = min(SpeechLevels::AT_ONCE, \count($some)); $i < $n; ++$i) {
                if ($some[$i] <= $threshold) {
                    continue;
                }
                $standing = array_filter(\array_slice($some, $i, self::FIVE), static fn (int $level): bool => $level > $threshold);
                // The last ones of a word count as long as they follow one another.
                if (\count($standing) >= min(self::OF_FIVE, $first + $count - $from - $i) || $end === $from + $i) {
                    $start ??= $from + $i;
                    $end = $from + $i + 1;
                }
            }
        }

        return null === $start ? null : [$start, $end];
    }

    private static function threshold(SpeechLevels $levels, int $first, int $count): int
    {
        $counts = [];
        foreach (self::pieces($levels, $first, $count) as $some) {
            foreach (\array_slice($some, 0, SpeechLevels::AT_ONCE) as $level) {
                $counts[$level] = ($counts[$level] ?? 0) + 1;
            }
        }
        $floor = SpeechLevels::ranked($counts, (int) (self::FLOOR_PERCENTILE * ($count - 1)));
        $loudest = SpeechLevels::ranked($counts, $count - 1);

        // A recording with hardly any background must not be cut at its quietest word, nor one without pauses at all.
        return min(max($floor + self::ABOVE_FLOOR, $loudest - self::BELOW_LOUDEST), $loudest - self::LEAST_BELOW_LOUDEST);
    }

    /** @return Generator<int, list<int>> by the first block of each; with the four that follow it */
    private static function pieces(SpeechLevels $levels, int $first, int $count): Generator
    {
        for ($from = $first; $from < $first + $count; $from += SpeechLevels::AT_ONCE) {
            yield $from => $levels->levels($from, min(SpeechLevels::AT_ONCE + self::FIVE - 1, $first + $count - $from));
        }
    }
}
