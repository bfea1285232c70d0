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
        $ramp = static fn (string $part, callable $gain): string => pack('g*', ...array_map(static fn (float $x, int $i): float => $x * $gain(intdiv($i, $channels) / $frames), Sound::floats($part), range(0, $channels * $frames - 1)));
        if (2 * $size > \strlen($bytes)) {
            return $bytes;
        }

        return $ramp(substr($bytes, 0, $size), static fn (float $x): float => $x).substr($bytes, $size, -$size).$ramp(substr($bytes, -$size), static fn (float $x): float => 1.0 - $x);
    }
}
