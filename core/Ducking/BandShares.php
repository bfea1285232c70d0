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
    /** 100 ms to either side that say how much lies outside of the bands: these are heard in samples, and a click may seem to be all there is. */
    private const AROUND = 2;

    /** @var list<array{float, float, float, float}> of each band: K-weighting, and none, once, twice */
    private array $parts;

    public function __construct(int $rate)
    {
        $weighting = KWeighting::atRate($rate);
        $this->parts = array_map(static function (int $band) use ($weighting, $rate): array {
            $hertz = ThirdOctaves::centre($band);
            [$re, $im] = Response::of(SpeechBand::without($rate), $hertz, $rate);

            return [$weighting->power($hertz, $rate), $re * $re + $im * $im, 2.0 * ($re * (1.0 - $re) - $im * $im), (1.0 - $re) ** 2 + $im * $im];
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
        foreach ($powers->pieces() as $from => $piece) {
            $made = [[], [], []];
            $around = [...array_fill(0, max(0, self::AROUND - $from), 0.0), ...$powers->slice(max(0, $from - self::AROUND), \count($piece) + self::AROUND + min($from, self::AROUND))];
            $parts = $this->parts($rows, $from - self::AROUND, \count($piece) + 2 * self::AROUND);
            foreach ($piece as $i => $power) {
                $heard = array_sum(array_map(static fn (array $part): float => $part[0], \array_slice($parts, $i, 2 * self::AROUND + 1)));
                $whole = array_sum(\array_slice($around, $i, 2 * self::AROUND + 1));
                [$sum, $none, $once, $twice] = $parts[$i + self::AROUND];
                // What the bands do not have of it lies outside of them: here, or at least as much as around.
                $outside = $whole > $heard ? 1.0 - $heard / $whole : 0.0;
                $outside = $power > 0.0 ? max($outside, 1.0 - $sum / $power) : 0.0;
                $scale = $sum > 0.0 ? (1.0 - $outside) * $power / $sum : 0.0;
                $made[0][] = $none * $scale + $outside * $power;
                $made[1][] = $once * $scale;
                $made[2][] = $twice * $scale;
            }
            foreach ($made as $n => $values) {
                $packed[$n] .= Series::packed($values);
            }
        }

        return array_map(Series::fromBytes(...), $packed);
    }

    /** @return list<array{float, float, float, float}> K-weighted power of the bands, and none, once and twice of it, of some 100 ms */
    private function parts(string $rows, int $from, int $count): array
    {
        $all = BandLevel::powers();
        $parts = [];
        for ($k = $from; $k < $from + $count; ++$k) {
            $at = $k * ThirdOctaves::COUNT;
            $sum = $a = $b = $c = 0.0;
            if ($at >= 0 && isset($rows[$at + ThirdOctaves::COUNT - 1])) {
                foreach ($this->parts as $band => [$weight, $none, $once, $twice]) {
                    $part = $weight * $all[\ord($rows[$at + $band])];
                    $sum += $part;
                    $a += $part * $none;
                    $b += $part * $once;
                    $c += $part * $twice;
                }
            }
            $parts[] = [$sum, $a, $b, $c];
        }

        return $parts;
    }
}
