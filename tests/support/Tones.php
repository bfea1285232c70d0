<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/** Tones in steps of level, as the test signals of the EBU are made; faded at both ends, since an abrupt start overshoots. */
final class Tones
{
    private const FADE_SECONDS = 0.005;

    /**
     * @param int $hz such that a second holds whole periods
     * @param list<array{list<float>, float}> $parts levels of each channel in dBFS (peak of the sine), and seconds
     *
     * @return string float32, interleaved
     */
    public static function steps(int $hz, array $parts, int $rate = 48_000): string
    {
        $second = [];
        for ($i = 0; $i < $rate; ++$i) {
            $second[] = sin(2.0 * \M_PI * $hz * $i / $rate);
        }
        $bytes = '';
        $at = 0;
        foreach ($parts as [$levels, $seconds]) {
            $frames = (int) round($seconds * $rate);
            $turn = self::frames($second, $levels, $at % $rate, min($frames, $rate));
            $size = 4 * \count($levels) * $frames;
            $bytes .= substr(str_repeat($turn, (int) ceil($frames / $rate)), 0, $size);
            $at += $frames;
        }

        return self::faded($bytes, \count($parts[0][0]), (int) (self::FADE_SECONDS * $rate));
    }

    /**
     * @param list<float> $second
     * @param list<float> $levels
     */
    private static function frames(array $second, array $levels, int $from, int $count): string
    {
        $gains = array_map(static fn (float $level): float => 10.0 ** ($level / 20.0), $levels);
        $bytes = '';
        $rate = \count($second);
        for ($i = $from; $i < $from + $count; ++$i) {
            foreach ($gains as $gain) {
                $bytes .= pack('g', $second[$i % $rate] * $gain);
            }
        }

        return $bytes;
    }

    private static function faded(string $bytes, int $channels, int $frames): string
    {
        $size = 4 * $channels * $frames;
        if (2 * $size > \strlen($bytes)) {
            return $bytes;
        }

        return self::ramp(substr($bytes, 0, $size), $channels, 0.0, 1.0).substr($bytes, $size, -$size).self::ramp(substr($bytes, -$size), $channels, 1.0, 0.0);
    }

    private static function ramp(string $bytes, int $channels, float $from, float $to): string
    {
        $samples = Sound::floats($bytes);
        $frames = intdiv(\count($samples), $channels);
        foreach ($samples as $i => $sample) {
            $samples[$i] = $sample * ($from + ($to - $from) * intdiv($i, $channels) / $frames);
        }

        return pack('g*', ...$samples);
    }
}
