<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Filter\Response;
use Wattage\Core\Filter\SpeechBand;
use Wattage\Core\Loudness\KWeighting;
use Wattage\Core\Loudness\Series;

/**
 * What the power of a track becomes when the band of speech in it is left at a gain g: N(x) + g·B(x) has the power none + once·g + twice·g², all three from its
 * third octaves, K-weighted; what lies outside of them stays.
 */
final readonly class BandShares
{
    /** @var list<array{float, float, float, float}> of each band: K-weighting, and none, once, twice */
    private array $parts;

    public function __construct(int $rate)
    {
        $weighting = KWeighting::atRate($rate);
        $this->parts = array_values(array_map(static function (int $band) use ($weighting, $rate): array {
            $hertz = ThirdOctaves::centre($band);
            [$re, $im] = Response::of(SpeechBand::without($rate), $hertz, $rate);

            return [$weighting->power($hertz, $rate), $re * $re + $im * $im, 2.0 * ($re * (1.0 - $re) - $im * $im), (1.0 - $re) ** 2 + $im * $im];
        }, range(0, ThirdOctaves::COUNT - 1)));
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
        $all = BandLevel::powers();
        foreach ($powers->pieces() as $from => $piece) {
            $made = [[], [], []];
            foreach ($piece as $i => $power) {
                $at = ($from + $i) * ThirdOctaves::COUNT;
                $sum = $a = $b = $c = 0.0;
                if ($power > 0.0 && isset($rows[$at + ThirdOctaves::COUNT - 1])) {
                    foreach ($this->parts as $band => [$weight, $none, $once, $twice]) {
                        $part = $weight * $all[\ord($rows[$at + $band])];
                        $sum += $part;
                        $a += $part * $none;
                        $b += $part * $once;
                        $c += $part * $twice;
                    }
                }
                $scale = $sum > $power ? $power / $sum : 1.0;
                $made[0][] = $a * $scale + max(0.0, $power - $sum);
                $made[1][] = $b * $scale;
                $made[2][] = $c * $scale;
            }
            foreach ($made as $n => $values) {
                $packed[$n] .= Series::packed($values);
            }
        }

        return array_map(Series::fromBytes(...), $packed);
    }
}
