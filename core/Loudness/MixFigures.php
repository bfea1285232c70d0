<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** How loud a mix is over time, track by track, stem by stem and as a whole, worked out without rendering it. */
final readonly class MixFigures
{
    /** @param array<string, TrackPower> $tracks by id */
    private function __construct(private Mix $mix, private array $tracks, public int $count)
    {
    }

    /**
     * @param Closure(string): ?SourceTenths $tenthsOf by source id; null where a source has not been measured
     * @param ?Closure(Track, int): TrackPower $powerOf of a track and a number of 100 ms, where it is known already
     */
    public static function of(Mix $mix, Closure $tenthsOf, ?Closure $powerOf = null): self
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $count = intdiv($mix->length() + $frames - 1, $frames);
        $powerOf ??= static fn (Track $track, int $count): TrackPower => TrackPower::of($mix, $track, $tenthsOf, $count);
        $tracks = array_map(static fn (Track $track): TrackPower => $powerOf($track, $count), $mix->tracks);

        return new self($mix, $tracks, $count);
    }

    /** @return array<string, TrackPower> by id */
    public function tracks(): array
    {
        return $this->tracks;
    }

    /** @return Series power of each 100 ms of everything */
    public function powers(): Series
    {
        return $this->sum($this->tracks, false, true);
    }

    /** @return Series power of each 100 ms of the tracks of one stem, or of all others */
    public function powersOf(Stem $stem, bool $others = false): Series
    {
        return $this->sum($this->tracksOf($stem, $others), false);
    }

    /** @return Series power of each 100 ms of one track as its stem has it */
    public function powersOfTrack(string $id): Series
    {
        return $this->sum([$id => $this->tracks[$id]], false);
    }

    /** @return Series no sample of each 100 ms of everything is higher */
    public function peaks(): Series
    {
        return $this->sum($this->tracks, true, true);
    }

    /** @param ?float $peak the highest sample, where it is known better; full scale is 1 */
    public function programme(?float $peak = null): Predicted
    {
        return Predicted::of($this->powers(), $peak ?? $this->peaks()->highest());
    }

    public function stem(Stem $stem): Predicted
    {
        $tracks = $this->tracksOf($stem, false);

        return Predicted::of($this->sum($tracks, false), $this->sum($tracks, true)->highest());
    }

    public function track(string $id): Predicted
    {
        return Predicted::of($this->tracks[$id]->powers, $this->tracks[$id]->peaks->highest());
    }

    /** @return array<string, TrackPower> */
    private function tracksOf(Stem $stem, bool $others): array
    {
        return array_filter($this->tracks, fn (string $id): bool => ($this->mix->tracks[$id]->stem === $stem) !== $others, \ARRAY_FILTER_USE_KEY);
    }

    /**
     * @param array<string, TrackPower> $tracks each through the fader of its stem
     * @param bool $programme and all of them through that of the programme
     */
    private function sum(array $tracks, bool $peaks, bool $programme = false): Series
    {
        $terms = [];
        foreach ($tracks as $id => $track) {
            $faders = $this->mix->faders;
            $gain = $faders->of($this->mix->tracks[$id]->stem)->ratio() * ($programme ? $faders->programme->ratio() : 1.0);
            $terms[] = $peaks ? [$track->peaks, $gain] : [$track->powers, $gain * $gain];
        }

        return Series::sum($terms, $this->count);
    }
}
