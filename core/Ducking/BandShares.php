<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Filter\SpeechBand;
use Wattage\Core\Loudness\KWeighting;
use Wattage\Core\Loudness\Series;

/**
 * What the power of a track becomes when the band of speech in it is left at a gain g: N(x) + g·B(x) has the power none + once·g + twice·g², all three from its
 * third octaves, K-weighted; what lies outside of them stays.
 */
final readonly class BandShares
{
    /** 100 ms to either side that say how much lies outside of the bands: these are heard in samples, and a click may seem to be all there is. */
    private const AROUND = 2;

    /** @var list<array{float, float, float, float}> of each band: K-weighting, and none, once, twice */
    private array $parts;

    public function __construct(int $rate)
    {
        $weighting = KWeighting::atRate($rate);
        $this->parts = array_map(static function (int $band) use ($weighting, $rate): array {
            $hertz = ThirdOctaves::centre($band);

            return [$weighting->power($hertz, $rate), ...SpeechBand::shares($hertz, $rate)];
        }, range(0, ThirdOctaves::COUNT - 1));
    }

    /** @return list<array{float, float, float}> none, once and twice of each band's power, all along */
    public function byBand(): array
    {
        return array_values(array_map(static fn (array $part): array => [$part[1], $part[2], $part[3]], $this->parts));
    }

    /**
     * @param Series $powers of the track, every 100 ms
     * @param string $rows of its third octaves
     *
     * @return array{Series, Series, Series}
     */
    public function of(Series $powers, string $rows): array
    {
        $packed = ['', '', ''];
        $heard = $this->heard($rows, $powers->count());
        for ($from = 0, $count = $powers->count(); $from < $count; $from += Series::AT_ONCE) {
            // With what lies around at both ends.
            $begin = max(0, $from - self::AROUND);
            $some = $powers->slice($begin, min($count, $from + Series::AT_ONCE + self::AROUND) - $begin);
            $made = [[], [], []];
            for ($k = $from, $end = min($count, $from + Series::AT_ONCE); $k < $end; ++$k) {
                $power = $some[$k - $begin];
                $whole = $inBands = 0.0;
                for ($j = max($begin, $k - self::AROUND), $last = min($count - 1, $k + self::AROUND); $j <= $last; ++$j) {
                    $whole += $some[$j - $begin];
                    $inBands += $heard[0][$j];
                }
                $sum = $heard[0][$k];
                // What the bands do not have of it lies outside of them: here, or at least as much as around.
                $outside = $whole > $inBands ? 1.0 - $inBands / $whole : 0.0;
                $outside = $power > 0.0 ? max($outside, 1.0 - $sum / $power) : 0.0;
                $scale = $sum > 0.0 ? (1.0 - $outside) * $power / $sum : 0.0;
                $made[0][] = $heard[1][$k] * $scale + $outside * $power;
                $made[1][] = $heard[2][$k] * $scale;
                $made[2][] = $heard[3][$k] * $scale;
            }
            foreach ($made as $n => $values) {
                $packed[$n] .= Series::packed($values);
            }
        }

        return array_map(Series::fromBytes(...), $packed);
    }

    /** @return array{array<int, float>, array<int, float>, array<int, float>, array<int, float>} K-weighted power of the bands, and none, once and twice of it, by 100 ms */
    private function heard(string $rows, int $count): array
    {
        $all = BandLevel::powers();
        $tables = [];
        foreach ($this->parts as [$weight]) {
            $tables[] = array_map(static fn (float $power): float => $weight * $power, $all);
        }
        $nones = array_column($this->parts, 1);
        $onces = array_column($this->parts, 2);
        $twices = array_column($this->parts, 3);
        $heard = array_fill(0, 4, array_fill(0, max(1, $count), 0.0));
        for ($k = 0, $at = 0, $end = min($count, intdiv(\strlen($rows), ThirdOctaves::COUNT)); $k < $end; ++$k) {
            $sum = $a = $b = $c = 0.0;
            for ($band = 0; $band < ThirdOctaves::COUNT; ++$band, ++$at) {
                $part = $tables[$band][\ord($rows[$at])];
                $sum += $part;
                $a += $part * $nones[$band];
                $b += $part * $onces[$band];
                $c += $part * $twices[$band];
            }
            $heard[0][$k] = $sum;
            $heard[1][$k] = $a;
            $heard[2][$k] = $b;
            $heard[3][$k] = $c;
        }

        return $heard;
    }
}
