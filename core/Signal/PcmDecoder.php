<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/**
 * Turns PCM bytes into integers.
 *
 * The cost of unpack() is per element it makes, so it is asked for 8-byte integers, which are then split by shifts: four
 * 16-bit samples from one, eight 24-bit samples from three.
 */
final class PcmDecoder
{
    /** @return array<int, int> samples in file order, full scale 2^15 or 2^23 */
    public static function decode(string $bytes, PcmFormat $format): array
    {
        return 16 === $format->bits ? self::decode16($bytes) : self::decode24($bytes);
    }

    /** @return array<int, int> */
    private static function decode16(string $bytes): array
    {
        $samples = array_fill(0, \strlen($bytes) >> 1, 0);
        $i = 0;
        foreach (Words::groupsOf($bytes) as $words) {
            foreach ($words as $word) {
                $samples[$i] = ($word << 48) >> 48;
                $samples[$i + 1] = ($word << 32) >> 48;
                $samples[$i + 2] = ($word << 16) >> 48;
                $samples[$i + 3] = $word >> 48;
                $i += 4;
            }
        }
        for ($n = \count($samples); $i < $n; ++$i) {
            $samples[$i] = ((\ord($bytes[2 * $i]) | \ord($bytes[2 * $i + 1]) << 8) << 48) >> 48;
        }

        return $samples;
    }

    /** @return array<int, int> */
    private static function decode24(string $bytes): array
    {
        $samples = array_fill(0, intdiv(\strlen($bytes), 3), 0);
        $i = 0;
        // A group is a multiple of three words; what is left of the last group goes the slow way below.
        foreach (Words::groupsOf($bytes) as $group) {
            $words = array_values($group);
            for ($w = 0, $n = \count($words) - 2; $w < $n; $w += 3) {
                $a = $words[$w];
                $b = $words[$w + 1];
                $c = $words[$w + 2];
                $samples[$i] = ($a << 40) >> 40;
                $samples[$i + 1] = ($a << 16) >> 40;
                $samples[$i + 2] = (($b << 56) >> 40) | (($a >> 48) & 0xFFFF);
                $samples[$i + 3] = ($b << 32) >> 40;
                $samples[$i + 4] = ($b << 8) >> 40;
                $samples[$i + 5] = (($c << 48) >> 40) | (($b >> 56) & 0xFF);
                $samples[$i + 6] = ($c << 24) >> 40;
                $samples[$i + 7] = $c >> 40;
                $i += 8;
            }
        }
        for ($n = \count($samples); $i < $n; ++$i) {
            $samples[$i] = ((\ord($bytes[3 * $i]) | \ord($bytes[3 * $i + 1]) << 8 | \ord($bytes[3 * $i + 2]) << 16) << 40) >> 40;
        }

        return $samples;
    }
}
