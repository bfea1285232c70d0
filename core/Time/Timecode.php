<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/**
 * Shows and reads positions as SMPTE ST 12-1 timecode, or as minutes and seconds.
 *
 * Drop-frame skips the numbers 00 and 01 at the start of each minute, except every tenth one.
 */
final class Timecode
{
    private const DROPPED_PER_MINUTE = 2;

    /** Frames in ten minutes of 29.97 drop-frame: 10·60·30 − 9·2. */
    private const TEN_MINUTES = 17982;

    /** Frames in a minute that drops: 60·30 − 2. */
    private const MINUTE = 1798;

    /** @param int $sample position ≥ 0 at $rate samples per second */
    public static function format(int $sample, int $rate, FrameRate $frames): string
    {
        $count = $frames->frameAt($sample, $rate);
        if ($frames->dropsFrames()) {
            $tens = intdiv($count, self::TEN_MINUTES);
            $rest = $count % self::TEN_MINUTES;
            // The first minute of ten keeps all its 1800 numbers; each later one starts at frame 02.
            $minutes = $rest < self::DROPPED_PER_MINUTE ? 0 : intdiv($rest - self::DROPPED_PER_MINUTE, self::MINUTE);
            $count += self::DROPPED_PER_MINUTE * (9 * $tens + $minutes);
        }
        $base = $frames->nominal();
        $seconds = intdiv($count, $base);

        return \sprintf('%02d:%02d:%02d%s%02d', intdiv($seconds, 3600), intdiv($seconds, 60) % 60, $seconds % 60, $frames->dropsFrames() ? ';' : ':', $count % $base);
    }

    /** Positions without a picture: "1:12.360", "1:02:03.004". */
    public static function clock(int $sample, int $rate): string
    {
        $milliseconds = intdiv($sample * 1000, $rate);
        $minutes = intdiv($milliseconds, 60000);
        $rest = \sprintf('%02d.%03d', intdiv($milliseconds, 1000) % 60, $milliseconds % 1000);

        return $minutes < 60 ? "{$minutes}:{$rest}" : \sprintf('%d:%02d:%s', intdiv($minutes, 60), $minutes % 60, $rest);
    }

    /**
     * Reads "hh:mm:ss:ff" (or ";" before the frames), "h:mm:ss.mmm", "m:ss.mmm" and "12.5s".
     *
     * @throws InvalidTime
     */
    public static function parse(string $text, int $rate, FrameRate $frames): int
    {
        $plain = trim(strtr($text, [',' => '.']));
        if (1 === preg_match('/^(\d{1,3}):([0-5]\d):([0-5]\d)[:;](\d{2})$/', $plain, $part)) {
            return self::fromParts((int) $part[1] * 60 + (int) $part[2], (int) $part[3], (int) $part[4], $plain, $rate, $frames);
        }
        if (1 === preg_match('/^(?:(?:(\d{1,3}):)?(\d{1,4}):)?(\d{1,6}(?:\.\d{0,9})?)\s*s?$/', $plain, $part)) {
            $seconds = (int) $part[1] * 3600 + (int) $part[2] * 60 + (float) $part[3];

            return (int) round($seconds * $rate);
        }
        throw InvalidTime::unreadable($text);
    }

    private static function fromParts(int $minutes, int $seconds, int $frame, string $text, int $rate, FrameRate $frames): int
    {
        $base = $frames->nominal();
        $dropped = $frames->dropsFrames() && 0 === $seconds && $frame < self::DROPPED_PER_MINUTE && 0 !== $minutes % 10;
        if ($frame >= $base || $dropped) {
            throw InvalidTime::noSuchFrame($text);
        }
        $count = ($minutes * 60 + $seconds) * $base + $frame;
        if ($frames->dropsFrames()) {
            $count -= self::DROPPED_PER_MINUTE * ($minutes - intdiv($minutes, 10));
        }

        return $frames->sampleOf($count, $rate);
    }
}
