<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/** Tones in steps of level, as the test signals of the EBU are made; faded at both ends, since an abrupt start overshoots. */
final class Tones
{
    private const FADE_SECONDS = 0.005;

    /**
     * @param list<array{list<float>, float}> $parts level of each channel in dBFS (peak of the sine), and seconds
     *
     * @return string float32, interleaved
     */
    public static function steps(float $hz, array $parts, int $rate = 48_000): string
    {
        $bytes = '';
        $at = 0;
        foreach ($parts as $number => [$levels, $seconds]) {
            $frames = (int) round($seconds * $rate);
            $gains = array_map(static fn (float $level): float => 10.0 ** ($level / 20.0), $levels);
            $same = 1 === \count(array_unique($gains));
            $fadeIn = 0 === $number;
            $fadeOut = $number === \count($parts) - 1;
            $values = [];
            for ($i = 0; $i < $frames; ++$i) {
                $x = sin(2.0 * \M_PI * $hz * ($at + $i) / $rate);
                if ($fadeIn && $i < self::FADE_SECONDS * $rate) {
                    $x *= $i / (self::FADE_SECONDS * $rate);
                }
                if ($fadeOut && $frames - $i < self::FADE_SECONDS * $rate) {
                    $x *= ($frames - $i) / (self::FADE_SECONDS * $rate);
                }
                if ($same) {
                    $values[] = $x * $gains[0];
                    continue;
                }
                foreach ($gains as $gain) {
                    $values[] = $x * $gain;
                }
            }
            foreach (array_chunk($values, 10_000) as $chunk) {
                $floats = pack('g*', ...$chunk);
                $bytes .= $same && \count($gains) > 1 ? self::spread($floats, \count($gains)) : $floats;
            }
            $at += $frames;
        }

        return $bytes;
    }

    private static function spread(string $floats, int $channels): string
    {
        return implode('', array_map(static fn (string $value): string => str_repeat($value, $channels), str_split($floats, 4)));
    }
}
