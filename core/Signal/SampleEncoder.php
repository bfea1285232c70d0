<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** Turns floats (full scale ±1.0) into the bytes of a delivered file; integer formats are dithered. */
final class SampleEncoder
{
    private readonly ?Dither $dither;
    private bool $full;

    public function __construct(private readonly SampleFormat $format, ?Dither $dither = null)
    {
        $this->dither = SampleFormat::Float32 === $format ? null : $dither ?? new Dither();
        $this->full = SampleFormat::Float32 === $format;
    }

    /**
     * @param array<int, float> $samples from 0 on, at most 65,536
     *
     * @return string as many samples as bytes
     */
    public function encode(array $samples): string
    {
        if (null === $this->dither) {
            return pack('g*', ...$samples);
        }
        $count = \count($samples);
        // The loops take so many at once as fill whole words; what is too much at the end is cut off.
        while (0 !== \count($samples) % 8) {
            $samples[] = 0.0;
        }
        $noise = $this->dither->noise;
        $at = $this->dither->place(\count($samples));

        return substr(SampleFormat::Pcm16 === $this->format ? $this->encode16($samples, $noise, $at) : $this->encode24($samples, $noise, $at), 0, $count * intdiv($this->format->bits(), 8));
    }

    /** Goes on as if so many pieces of so many samples had been encoded: another process has done it. */
    public function skip(int $pieces, int $samples): void
    {
        for ($i = 0; $i < $pieces; ++$i) {
            $this->dither?->place(8 * intdiv($samples + 7, 8));
        }
    }

    /** Whether something in the last piece may have passed full scale; of floats it is not known, so it is always so. */
    public function mayPass(): bool
    {
        return $this->full;
    }

    /**
     * Four samples to a word. They are rounded by adding a number so large that floats have no digits left behind the
     * point, and three of them are put together as floats, since PHP turns floats to integers slowly.
     *
     * @param array<int, float> $samples
     * @param list<float> $noise
     * @param int $at place in the noise
     */
    private function encode16(array $samples, array $noise, int $at): string
    {
        $full = false;
        $whole = Dither::WHOLE;
        $words = array_fill(0, \count($samples) >> 2, 0);
        $i = 0;
        foreach ($words as $w => $_) {
            // Offset binary, never negative: the sign bit is put right below.
            $a = $samples[$i] * 32768.0 + 32768.0 + $noise[$at];
            $b = $samples[$i + 1] * 32768.0 + 32768.0 + $noise[$at + 1];
            $c = $samples[$i + 2] * 32768.0 + 32768.0 + $noise[$at + 2];
            $d = $samples[$i + 3] * 32768.0 + 32768.0 + $noise[$at + 3];
            if ($a < 1.5 || $b < 1.5 || $c < 1.5 || $d < 1.5 || $a > 65534.0 || $b > 65534.0 || $c > 65534.0 || $d > 65534.0) {
                [$a, $b, $c, $d] = Dither::within(65535.0, $a, $b, $c, $d);
                $full = true;
            }
            $words[$w] = (int) (($a + $whole - $whole) + ($b + $whole - $whole) * 65536.0 + ($c + $whole - $whole) * 4294967296.0) | (int) ($d + $whole - $whole) << 48;
            $i += 4;
            $at += 4;
        }
        $this->full = $full;

        return pack('q*', ...$words) ^ str_repeat("\x00\x80", \count($samples));
    }

    /**
     * Eight samples to three words, by the same means.
     *
     * @param array<int, float> $samples
     * @param list<float> $noise
     * @param int $at place in the noise
     */
    private function encode24(array $samples, array $noise, int $at): string
    {
        $full = false;
        $whole = Dither::WHOLE;
        $n = \count($samples);
        $pairs = array_fill(0, 4, 0);
        $words = array_fill(0, intdiv($n, 8) * 3, 0);
        for ($i = $w = 0; $i < $n; $w += 3) {
            for ($p = 0; $p < 4; ++$p, $i += 2, $at += 2) {
                $a = $samples[$i] * 8388608.0 + 8388608.0 + $noise[$at];
                $b = $samples[$i + 1] * 8388608.0 + 8388608.0 + $noise[$at + 1];
                if ($a < 1.5 || $b < 1.5 || $a > 16777214.0 || $b > 16777214.0) {
                    [$a, $b] = Dither::within(16777215.0, $a, $b);
                    $full = true;
                }
                $pairs[$p] = (int) (($a + $whole - $whole) + ($b + $whole - $whole) * 16777216.0);
            }
            $words[$w] = $pairs[0] | $pairs[1] << 48;
            $words[$w + 1] = $pairs[1] >> 16 | $pairs[2] << 32;
            $words[$w + 2] = $pairs[2] >> 32 | $pairs[3] << 16;
        }
        $this->full = $full;

        return pack('q*', ...$words) ^ str_repeat("\x00\x00\x80", $n);
    }
}
