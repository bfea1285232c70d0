<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/**
 * Turns 32-bit floats into PHP's, two from each 8-byte integer: a table of what sign and exponent stand for, times the
 * mantissa. Quicker than unpack('g*'), for the reason that PcmDecoder gives.
 */
final class FloatDecoder
{
    /** @var list<float>|null by sign and exponent: the value of one unit of the mantissa */
    private static ?array $units = null;

    /** @return array<int, float> infinite, undefined and denormal values are silence */
    public static function decode(string $bytes): array
    {
        self::$units ??= self::units();
        $units = self::$units;
        $samples = array_fill(0, \strlen($bytes) >> 2, 0.0);
        $i = 0;
        foreach (Words::groupsOf($bytes) as $words) {
            foreach ($words as $word) {
                $samples[$i] = $units[($word >> 23) & 511] * (($word & 0x7FFFFF) | 0x800000);
                $samples[$i + 1] = $units[($word >> 55) & 511] * ((($word >> 32) & 0x7FFFFF) | 0x800000);
                $i += 2;
            }
        }
        if ($i < \count($samples)) {
            /** @var array{1: int} $last */
            $last = unpack('V', $bytes, 4 * $i);
            $samples[$i] = $units[($last[1] >> 23) & 511] * (($last[1] & 0x7FFFFF) | 0x800000);
        }

        return $samples;
    }

    /** @return list<float> */
    private static function units(): array
    {
        $units = [];
        foreach ([1.0, -1.0] as $sign) {
            for ($exponent = 0; $exponent < 256; ++$exponent) {
                $units[] = 0 === $exponent || 255 === $exponent ? 0.0 : $sign * 2.0 ** ($exponent - 150);
            }
        }

        return $units;
    }
}
