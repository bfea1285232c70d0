<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/**
 * Speech made by the test, with known times: syllables of a hiss and a vowel, of which the vowel is a buzz with a moving pitch through three resonances. Nobody would take it for a
 * person, but it moves as speech does.
 */
final class Voice
{
    private const RATE = 48_000;
    /** First three resonances of some vowels, Hz (Peterson and Barney, 1952 [M]). */
    private const VOWELS = [[730, 1090, 2440], [270, 2290, 3010], [300, 870, 2240], [530, 1840, 2480], [570, 840, 2410], [660, 1720, 2410]];
    private const WIDTHS = [80, 110, 160];

    /**
     * @param list<array{0: float, 1: float, 2?: float}> $times from and to in seconds, and how loud, 1 usually
     * @param float $level RMS while it speaks, full scale is 1
     *
     * @return list<float>
     */
    public static function saying(array $times, float $seconds, float $level = 0.06, int $seed = 1): array
    {
        $random = new Random($seed);
        $samples = array_fill(0, (int) ($seconds * self::RATE), 0.0);
        foreach ($times as $time) {
            $said = self::sentence((int) (($time[1] - $time[0]) * self::RATE), $random);
            $squares = array_sum(array_map(static fn (float $x): float => $x * $x, $said));
            $gain = $level * ($time[2] ?? 1.0) / sqrt(max(1e-12, $squares / max(1, \count($said))));
            $at = (int) ($time[0] * self::RATE);
            foreach ($said as $i => $x) {
                if (isset($samples[$at + $i])) {
                    $samples[$at + $i] += $gain * $x;
                }
            }
        }

        return $samples;
    }

    /**
     * @param list<array{0: float, 1: float, 2?: float}> $times as above
     *
     * @return string a WAV file with one channel, 16 bits
     */
    public static function wav(array $times, float $seconds, float $level = 0.06): string
    {
        $bytes = Sound::pcm16(self::saying($times, $seconds, $level));

        return \Wattage\Core\Signal\WavHeader::of(1, 16, false, self::RATE, intdiv(\strlen($bytes), 2)).$bytes;
    }

    /** @return list<float> */
    private static function sentence(int $frames, Random $random): array
    {
        $samples = [];
        $phase = 0.0;
        $states = [[0.0, 0.0], [0.0, 0.0], [0.0, 0.0]];
        $hiss = 0.0;
        $pitch = $random->float(100.0, 190.0);
        while (\count($samples) < $frames) {
            $vowel = self::VOWELS[$random->int(0, \count(self::VOWELS) - 1)];
            $consonant = (int) ($random->float(0.04, 0.09) * self::RATE);
            $length = $consonant + (int) ($random->float(0.1, 0.17) * self::RATE);
            $bend = $random->float(-0.25, 0.25);
            $loud = $random->float(0.5, 1.0);
            $poles = array_map(static fn (int $hz, int $width): array => [2.0 * exp(-\M_PI * $width / self::RATE) * cos(2.0 * \M_PI * $hz / self::RATE), -exp(-2.0 * \M_PI * $width / self::RATE)], $vowel, self::WIDTHS);
            for ($i = 0; $i < $length; ++$i) {
                $noise = $random->float(-1.0, 1.0);
                $voice = max(0.0, min(1.0, ($i - $consonant) / 900, ($length - $i) / 1500));
                $phase += $pitch * (1.0 + $bend * $i / $length) / self::RATE;
                $phase -= floor($phase);
                $x = $voice * ($phase < 0.4 ? sin(\M_PI * $phase / 0.4) ** 2 : 0.0) - 0.2 * $voice + 0.02 * $noise;
                foreach ($poles as $k => [$a, $b]) {
                    $y = (1.0 - $a - $b) * $x + $a * $states[$k][0] + $b * $states[$k][1];
                    $states[$k] = [$y, $states[$k][0]];
                    $x = $y;
                }
                $burst = $i < $consonant ? 0.12 * sin(\M_PI * $i / $consonant) : 0.0;
                $samples[] = $loud * (6.0 * $x + $burst * ($noise - $hiss));
                $hiss = $noise;
            }
        }

        return \array_slice($samples, 0, $frames);
    }
}
