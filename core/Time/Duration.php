<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/** Reads a length as people type it: "0.5", "0.5 s", "250 ms", "12 f" for frames. */
final class Duration
{
    /**
     * @return int samples ≥ 0
     *
     * @throws InvalidTime
     */
    public static function parse(string $text, int $rate, FrameRate $frames): int
    {
        $plain = strtolower(trim(strtr($text, [',' => '.'])));
        if (1 !== preg_match('/^(\d{1,6}(?:\.\d{0,6})?|\.\d{1,6})\s*(s|ms|f|frames?)?$/', $plain, $found)) {
            throw InvalidTime::notALength($text);
        }
        $number = (float) $found[1];
        [$numerator, $denominator] = $frames->fraction();

        return (int) round(match ($found[2] ?? 's') {
            'ms' => $number * $rate / 1000.0,
            'f', 'frame', 'frames' => $number * $rate * $denominator / $numerator,
            default => $number * $rate,
        });
    }
}
