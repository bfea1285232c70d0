<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Reach;
use Wattage\Core\Filter\Response;
use Wattage\Core\Filter\SpeechBand;
use Wattage\Core\Render\TrackMoves;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * What the filters of a clip and its track do to what its source was measured at: each 100 ms is as much louder or softer as its third octaves are together,
 * K-weighted. What lies outside of them goes by 80 Hz or 12 kHz, after the louder end of the spectrum.
 */
final class Filtering
{
    /** Hz in place of all below the bands, and of all above. */
    private const BELOW = 80.0;
    private const ABOVE = 12_000.0;
    /** What is left of the band of speech, in steps of this many dB, where bands are moved by bytes. */
    private const STEP = 0.5;

    private readonly int $frames;
    /** @var list<array{float, float, float}> of each band, then of what lies below and above: power where the lane is at silence, and what grows with its gain and its square */
    private readonly array $powers;
    /** @var list<float> K-weighting of each band */
    private readonly array $weights;
    /** @var list<Stretch> what is left of the band of speech, timeline time; none where it stays */
    private readonly array $band;
    private readonly float $peak;

    /** @param list<Biquad> $biquads of clip and track */
    private function __construct(Mix $mix, Track $track, private readonly Clip $clip, array $biquads)
    {
        $rate = $mix->rate;
        $this->frames = intdiv($rate, TrackPower::TENTHS_PER_SECOND);
        $this->band = $clip->ducked ? TrackMoves::band($track, $clip->span()) ?? [] : [];
        $weighting = KWeighting::atRate($rate);
        $powers = $weights = [];
        foreach ([...array_map(ThirdOctaves::centre(...), range(0, ThirdOctaves::COUNT - 1)), self::BELOW, self::ABOVE] as $i => $hertz) {
            $colour = Response::power($biquads, $hertz, $rate);
            [$none, $once, $twice] = SpeechBand::shares($hertz, $rate);
            $powers[] = [$colour * $none, $colour * $once, $colour * $twice];
            $i < ThirdOctaves::COUNT && $weights[] = $weighting->power($hertz, $rate);
        }
        [$this->powers, $this->weights] = [$powers, $weights];
        $this->peak = Reach::of($biquads) * ([] === $this->band ? 1.0 : max(1.0, Reach::of(SpeechBand::without($rate))));
    }

    /** @return ?self null where a clip goes through no filter */
    public static function of(Mix $mix, Track $track, Clip $clip): ?self
    {
        $biquads = [...$clip->colour->biquads($mix->rate), ...$track->colour->biquads($mix->rate)];

        return [] === $biquads && (!$clip->ducked || $track->band->curve->isFlat()) ? null : new self($mix, $track, $clip, $biquads);
    }

    /** What the source of the clip would have been measured at, where it is heard in the clip. */
    public function tenths(SourceTenths $tenths): SourceTenths
    {
        [$first, $count] = $this->heard();
        $factors = $this->factors($tenths, $tenths->bands(), $first, $count);

        return $tenths->replaced($first, array_map(static fn (Series $row): array => array_map(static fn (float $power, float $factor): float => $power * $factor, $row->slice($first, \count($factors)), $factors), $tenths->powers), array_map(
            fn (float $peak): float => $peak * $this->peak,
            $tenths->peaks->slice($first, \count($factors)),
        ));
    }

    /**
     * @param string $rows of the source: see {@see SourceBands}
     *
     * @return string the same through the filters, where it is heard in the clip
     */
    public function rows(string $rows): string
    {
        [$first, $count] = $this->heard();
        $moved = [];
        for ($k = $first, $end = min($first + $count, intdiv(\strlen($rows), ThirdOctaves::COUNT)); $k < $end; ++$k) {
            $step = (int) round(20.0 * log10(max(1e-4, $this->leftAt($k))) / self::STEP);
            $moved[$step] ??= $this->moved(10.0 ** ($step * self::STEP / 20.0));
            for ($band = 0, $at = $k * ThirdOctaves::COUNT; $band < ThirdOctaves::COUNT; ++$band, ++$at) {
                $byte = \ord($rows[$at]);
                $rows[$at] = 0 === $byte ? "\0" : \chr(max(0, min(255, $byte + $moved[$step][$band])));
            }
        }

        return $rows;
    }

    /** @return array{int, int} the first 100 ms of the source that is heard, and how many; one more at each end, since they lie across those of the timeline */
    private function heard(): array
    {
        $first = max(0, intdiv($this->clip->in, $this->frames) - 1);

        return [$first, intdiv($this->clip->in + $this->clip->length, $this->frames) + 2 - $first];
    }

    /** @return list<float> by what power is multiplied in each 100 ms */
    private function factors(SourceTenths $tenths, ?SourceBands $bands, int $first, int $count): array
    {
        $rows = $bands?->together() ?? '';
        $all = BandLevel::powers();
        $factors = [];
        foreach ($tenths->powers[0]->slice($first, $count) as $k => $total) {
            $left = $this->leftAt($first + $k);
            $at = ($first + $k) * ThirdOctaves::COUNT;
            $heard = $through = 0.0;
            if (isset($rows[$at + ThirdOctaves::COUNT - 1])) {
                foreach ($this->weights as $band => $weight) {
                    $power = $all[\ord($rows[$at + $band])] * $weight;
                    [$none, $once, $twice] = $this->powers[$band];
                    $heard += $power;
                    $through += $power * ($none + $left * ($once + $left * $twice));
                }
            }
            $rest = max(0.0, $total - $heard);
            [$none, $once, $twice] = $this->powers[ThirdOctaves::COUNT + (isset($rows[$at]) && $rows[$at] < $rows[$at + ThirdOctaves::COUNT - 1] ? 1 : 0)];
            $factors[] = $heard + $rest > 0.0 ? ($through + $rest * ($none + $left * ($once + $left * $twice))) / ($heard + $rest) : 1.0;
        }

        return $factors;
    }

    /** @return float gain that is left of the band of speech in the middle of 100 ms of the source */
    private function leftAt(int $tenth): float
    {
        if ([] === $this->band) {
            return 1.0;
        }
        $at = max($this->clip->at, min($this->clip->end() - 1, $this->clip->toTimeline($tenth * $this->frames + intdiv($this->frames, 2))));
        [$low, $high] = [0, \count($this->band) - 1];
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            $this->band[$middle]->to <= $at ? $low = $middle + 1 : $high = $middle;
        }

        return $this->band[$low]->gainAt($at);
    }

    /** @return list<int> bytes by which each band is moved, where so much is left of the band of speech */
    private function moved(float $left): array
    {
        return array_map(static fn (array $power): int => (int) round(10.0 * log10(max(1e-12, $power[0] + $left * ($power[1] + $left * $power[2]))) / BandLevel::STEP), \array_slice($this->powers, 0, ThirdOctaves::COUNT));
    }
}
