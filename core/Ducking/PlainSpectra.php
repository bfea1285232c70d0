<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Clarity\TrackBands;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Works it out each time it is asked for. */
final readonly class PlainSpectra implements Spectra
{
    /**
     * @param Closure(string): ?SourceTenths $tenthsOf by source id
     * @param Closure(string): ?SourceBands $bandsOf likewise
     */
    public function __construct(private Closure $tenthsOf, private Closure $bandsOf)
    {
    }

    public function bands(Mix $mix, MixFigures $figures): array
    {
        return array_map(fn (Track $track): string => $this->of($mix, $figures, $track), $mix->tracks);
    }

    public function shares(Mix $mix, MixFigures $figures, string $track): array
    {
        return (new BandShares($mix->rate))->of($figures->powersOfTrack($track), $this->of($mix, $figures, $mix->track($track)));
    }

    private function of(Mix $mix, MixFigures $figures, Track $track): string
    {
        return TrackBands::of($mix, $track, $figures->tracks()[$track->id]->powers, $this->tenthsOf, $this->bandsOf);
    }
}
