<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/**
 * The bytes before the samples of a WAV file: RIFF/WAVE, or RF64 where 32-bit sizes do not suffice.
 *
 * Sources: Microsoft/IBM RIFF WAVE as summed up in EBU Tech 3285; EBU Tech 3306 (RF64).
 */
final class WavHeader
{
    private const PCM = 1;
    private const FLOAT = 3;

    /**
     * @param int $channels 1 or 2
     * @param int $bits per sample: 16 or 24 for PCM, 32 for float
     * @param int $frames how many will follow
     * @param string $chunks others, whole, that stand before the samples
     *
     * @throws InvalidAudio
     */
    public static function of(int $channels, int $bits, bool $float, int $rate, int $frames, string $chunks = ''): string
    {
        $rate > 0 && $rate < 2 ** 31 || throw InvalidAudio::unwritableRate($rate);
        $block = $channels * intdiv($bits, 8);
        $bytes = $frames * $block;
        $format = pack('vvVVvv', $float ? self::FLOAT : self::PCM, $channels, $rate, $rate * $block, $block, $bits);
        // A non-PCM format states the size of its (empty) extension and a fact chunk with the number of frames.
        $chunks = ($float
            ? 'fmt '.pack('V', 18).$format.pack('v', 0).'fact'.pack('VV', 4, min($frames, 0xFFFFFFFF))
            : 'fmt '.pack('V', 16).$format).$chunks;
        $riff = 4 + \strlen($chunks) + 8 + $bytes + ($bytes & 1);
        if ($riff <= 0xFFFFFFFF) {
            return 'RIFF'.pack('V', $riff).'WAVE'.$chunks.'data'.pack('V', $bytes);
        }
        $ds64 = 'ds64'.pack('VPPPV', 28, $riff + 36, $bytes, $frames, 0);

        return 'RF64'.pack('V', 0xFFFFFFFF).'WAVE'.$ds64.$chunks.'data'.pack('V', 0xFFFFFFFF);
    }

    /** A delivered stereo file. */
    public static function delivery(SampleFormat $format, int $rate, int $frames): string
    {
        return self::of(2, $format->bits(), SampleFormat::Float32 === $format, $rate, $frames);
    }
}
