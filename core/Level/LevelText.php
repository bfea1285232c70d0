<?php

declare(strict_types=1);

namespace Wattage\Core\Level;

/** Reads a level as people type it: "-6", "−6 dB", "+3,5", "80%", "-inf", "silence". */
final class LevelText
{
    /** @throws InvalidLevel */
    public static function parse(string $text): Decibels
    {
        $plain = strtolower(trim(strtr($text, ['−' => '-', '–' => '-', ',' => '.', '∞' => 'inf'])));
        if (\in_array($plain, ['-inf', '-inf db', 'silence'], true)) {
            return Decibels::silence();
        }
        if (1 !== preg_match('/^([+-]?(?:\d{1,6}(?:\.\d{0,12})?|\.\d{1,12}))\s*(db|%)?$/', $plain, $found)) {
            throw InvalidLevel::unreadable($text);
        }
        $number = (float) $found[1];
        if ('%' !== ($found[2] ?? '')) {
            return Decibels::of($number);
        }

        return $number < 0 ? throw InvalidLevel::negativePercent() : Decibels::fromRatio($number / 100.0);
    }
}
