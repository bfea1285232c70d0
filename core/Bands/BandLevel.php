<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

/** The power of a band as one byte: half decibels above −120 dBFS, and 0 for nothing at all. */
final class BandLevel
{
    public const STEP = 0.5;
    public const LOWEST = -120.0;

    /** @param float $power mean square; full scale sine 0.5 */
    public static function byte(float $power): int
    {
        if ($power < 1.06e-12) {
            return 0;
        }
        $steps = (int) ((10.0 * log10($power) - self::LOWEST) / self::STEP + 0.5);

        return $steps < 255 ? $steps : 255;
    }

    /** @return list<float> mean square for each byte */
    public static function powers(): array
    {
        $powers = [0.0];
        for ($byte = 1; $byte < 256; ++$byte) {
            $powers[] = 10.0 ** ((self::LOWEST + $byte * self::STEP) / 10.0);
        }

        return $powers;
    }
}
