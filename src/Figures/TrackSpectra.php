<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Clarity\TrackBands;
use Wattage\Core\Ducking\BandShares;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** What lies in each third octave of the tracks of a mix; those that are as they were last are not worked out again. */
final readonly class TrackSpectra
{
    public function __construct(private Measures $measures)
    {
    }

    /**
     * @param MixFigures $figures of that mix
     * @param string $kind what is remembered apart from the mix itself
     *
     * @return array<string, string> by track: see {@see TrackBands}
     */
    public function of(Project $project, Mix $mix, MixFigures $figures, string $kind = ''): array
    {
        $states = TrackPowers::states($mix);
        $bands = [];
        foreach ($mix->tracks as $id => $track) {
            $bands[(string) $id] = $this->track($project, $mix, $figures, $track, "{$figures->count} {$states[$id]}", $kind);
        }

        return $bands;
    }

    /** @return array{Series, Series, Series} of one track: see {@see BandShares} */
    public function shares(Project $project, Mix $mix, MixFigures $figures, string $track, string $kind): array
    {
        $state = "{$figures->count} ".TrackPowers::states($mix)[$track];
        $bytes = $this->measures->remembered($project, "shares {$kind}{$track}", $state, fn (): array => array_map(
            static fn (Series $row): string => $row->toBytes(),
            (new BandShares($mix->rate))->of($figures->powersOfTrack($track), $this->track($project, $mix, $figures, $mix->track($track), $state, $kind)),
        ));

        return array_map(Series::fromBytes(...), $bytes);
    }

    private function track(Project $project, Mix $mix, MixFigures $figures, Track $track, string $state, string $kind): string
    {
        return $this->measures->remembered($project, "bands {$kind}{$track->id}", $state, fn (): string => TrackBands::of(
            $mix,
            $track,
            $figures->tracks()[$track->id]->powers,
            $this->measures->tenthsOf($project),
            $this->measures->bandsOf($project),
        ));
    }
}
