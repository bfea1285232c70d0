<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * Turns floats (full scale ±1.0) into the bytes of a delivered file.
 *
 * Integer formats get TPDF dither: the sum of two independent uniform values, ±1 step at most, which makes the rounding
 * error independent of the sound (Lipshitz, Wannamaker, Vanderkooy, "Quantization and dither", JAES 1992). The dither is
 * drawn from a table at a random place for each call, and from a fixed seed, so that the same mix renders to the same file.
 */
final class SampleEncoder
{
    private const TABLE = 1 << 17;

    /** @var list<float> triangular noise in steps, −1…1 */
    private array $noise = [];
    private readonly Randomizer $random;

    public function __construct(private readonly SampleFormat $format, int $seed = 1)
    {
        $this->random = new Randomizer(new Xoshiro256StarStar($seed));
        if (SampleFormat::Float32 !== $format) {
            /** @var array<int, int> $pairs */
            $pairs = unpack('v*', $this->random->getBytes(4 * self::TABLE));
            for ($i = 1, $n = 2 * self::TABLE; $i < $n; $i += 2) {
                $this->noise[] = ($pairs[$i] + $pairs[$i + 1] - 65535.0) / 65536.0;
            }
        }
    }

    /** @param array<int, float> $samples at most TABLE/2 of them */
    public function encode(array $samples): string
    {
        return match ($this->format) {
            SampleFormat::Float32 => pack('g*', ...$samples),
            SampleFormat::Pcm16 => $this->encode16($samples),
            SampleFormat::Pcm24 => $this->encode24($samples),
        };
    }

    /** @param array<int, float> $samples */
    private function encode16(array $samples): string
    {
        $noise = $this->noise;
        $at = $this->random->getInt(0, self::TABLE - \count($samples));
        foreach ($samples as $i => $sample) {
            // Offset binary: never negative, so that pack()'s truncation rounds; the sign bit is put right below.
            $value = $sample * 32768.0 + 32768.5 + $noise[$at + $i];
            $samples[$i] = $value < 0.0 ? 0.0 : ($value >= 65535.0 ? 65535.0 : $value);
        }

        return pack('v*', ...$samples) ^ str_repeat("\x00\x80", \count($samples));
    }

    /** @param array<int, float> $samples */
    private function encode24(array $samples): string
    {
        $noise = $this->noise;
        $at = $this->random->getInt(0, self::TABLE - \count($samples));
        $bytes = '';
        foreach ($samples as $i => $sample) {
            $value = $sample * 8388608.0 + 8388608.5 + $noise[$at + $i];
            $samples[$i] = $value < 0.0 ? 0 : ($value >= 16777215.0 ? 16777215 : (int) $value);
        }
        $n = \count($samples);
        $words = [];
        for ($i = 0; $i + 7 < $n; $i += 8) {
            $words[] = $samples[$i] | $samples[$i + 1] << 24 | ($samples[$i + 2] & 0xFFFF) << 48;
            $words[] = $samples[$i + 2] >> 16 | $samples[$i + 3] << 8 | $samples[$i + 4] << 32 | ($samples[$i + 5] & 0xFF) << 56;
            $words[] = $samples[$i + 5] >> 8 | $samples[$i + 6] << 16 | $samples[$i + 7] << 40;
        }
        $bytes = pack('q*', ...$words);
        for (; $i < $n; ++$i) {
            $bytes .= substr(pack('V', $samples[$i]), 0, 3);
        }

        return $bytes ^ str_repeat("\x00\x00\x80", $n);
    }
}
