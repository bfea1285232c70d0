<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\InvalidFilter;
use Wattage\Core\Filter\Response;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/**
 * Brings the long-term spectrum of one clip to that of another by a tone: of a choice of places for its four parts the one, and of all gains within its limits
 * those, that leave the least between the two curves. Loudness is no colour: both curves are taken about their means.
 */
final class EvenColour
{
    /** Hz that each of the four may stand at. */
    private const PLACES = [[120.0, 180.0, 280.0], [350.0, 500.0, 750.0], [1_400.0, 2_000.0, 2_800.0], [3_500.0, 5_000.0, 7_000.0]];
    /** Rows softer than the loudest by more than this do not count, dB. */
    private const GATE = 25.0;
    private const ROUNDS = 6;

    /**
     * @param Colour $colour that it is heard with
     *
     * @return ?list<float> dB of each third octave about their mean, of what is loud enough in a clip; null where it is silent
     */
    public static function spectrum(Mix $mix, Clip $clip, SourceBands $bands, Colour $colour): ?array
    {
        $rows = $bands->together();
        $powers = BandLevel::powers();
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $all = [];
        for ($k = intdiv($clip->in, $frames), $end = min(intdiv($clip->in + $clip->length, $frames), intdiv(\strlen($rows), ThirdOctaves::COUNT)); $k < $end; ++$k) {
            $row = [];
            for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
                $row[] = $powers[\ord($rows[$k * ThirdOctaves::COUNT + $band])];
            }
            $all[] = $row;
        }
        $loudest = [] === $all ? 0.0 : max(array_map(array_sum(...), $all));
        $loud = array_filter($all, static fn (array $row): bool => array_sum($row) > $loudest * 10.0 ** (-self::GATE / 10.0));
        if ($loudest <= 0.0) {
            return null;
        }
        $levels = [];
        for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
            $power = array_sum(array_column($loud, $band)) / \count($loud) * Response::power($colour->biquads($mix->rate), ThirdOctaves::centre($band), $mix->rate);
            $levels[] = 10.0 * log10(max(1e-12, $power));
        }

        return self::aboutMean($levels);
    }

    /**
     * @param list<float> $now dB by third octave
     * @param list<float> $wanted likewise
     *
     * @return array{Tone, list<float>} and the spectrum that it makes
     *
     * @throws InvalidFilter
     */
    public static function fit(array $now, array $wanted, int $rate): array
    {
        $best = null;
        foreach (self::PLACES[0] as $low) {
            foreach (self::PLACES[1] as $first) {
                foreach (self::PLACES[2] as $second) {
                    foreach (self::PLACES[3] as $high) {
                        $places = [$low, $first, $second, $high];
                        $gains = self::gains($places, self::aboutMean(array_map(static fn (float $a, float $b): float => $b - $a, $now, $wanted)), $rate);
                        $tone = new Tone(array_map(static fn (float $hertz, float $db): array => [$hertz, $db], $places, $gains));
                        $after = self::through($tone, $now, $rate);
                        $off = array_sum(array_map(static fn (float $a, float $b): float => ($a - $b) ** 2, $after, $wanted));
                        $best = null === $best || $off < $best[0] ? [$off, $tone, $after] : $best;
                    }
                }
            }
        }

        return [$best[1], $best[2]];
    }

    /**
     * What is left between two spectra.
     *
     * @param list<float> $a
     * @param list<float> $b
     *
     * @return float dB, root of the mean square
     */
    public static function between(array $a, array $b): float
    {
        return sqrt(array_sum(array_map(static fn (float $x, float $y): float => ($x - $y) ** 2, $a, $b)) / \count($a));
    }

    /**
     * Gains that come closest to a difference, one after the other and some times over: what each part does to a band is nearly its gain times what it does at 1 dB.
     *
     * @param list<float> $places Hz
     * @param list<float> $wanted dB by third octave
     *
     * @return list<float> dB
     */
    private static function gains(array $places, array $wanted, int $rate): array
    {
        $shapes = [];
        foreach ($places as $i => $hertz) {
            $one = match ($i) {
                0 => Biquad::lowShelf($hertz, 3.0, $rate),
                3 => Biquad::highShelf($hertz, 3.0, $rate),
                default => Biquad::peaking($hertz, Tone::Q, 3.0, $rate),
            };
            $shapes[] = self::aboutMean(array_map(static fn (int $band): float => 10.0 * log10(Response::power([$one], ThirdOctaves::centre($band), $rate)) / 3.0, range(0, ThirdOctaves::COUNT - 1)));
        }
        $gains = array_fill(0, \count($places), 0.0);
        for ($round = 0; $round < self::ROUNDS; ++$round) {
            foreach ($shapes as $i => $shape) {
                $above = $below = 0.0;
                foreach ($shape as $band => $part) {
                    $left = $wanted[$band];
                    foreach ($shapes as $j => $other) {
                        $left -= $j === $i ? 0.0 : $gains[$j] * $other[$band];
                    }
                    $above += $left * $part;
                    $below += $part * $part;
                }
                $gains[$i] = round(max(-Tone::MOST, min(Tone::MOST, $above / $below)), 1);
            }
        }

        return array_values($gains);
    }

    /**
     * @param list<float> $levels dB by third octave
     *
     * @return list<float> about their mean again
     */
    private static function through(Tone $tone, array $levels, int $rate): array
    {
        $biquads = (new Colour(null, $tone))->biquads($rate);

        return self::aboutMean(array_map(static fn (int $band, float $db): float => $db + 10.0 * log10(Response::power($biquads, ThirdOctaves::centre($band), $rate)), array_keys($levels), $levels));
    }

    /**
     * @param list<float> $levels
     *
     * @return list<float>
     */
    private static function aboutMean(array $levels): array
    {
        $mean = array_sum($levels) / max(1, \count($levels));

        return array_map(static fn (float $level): float => $level - $mean, $levels);
    }
}
