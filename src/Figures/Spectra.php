<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Clarity\TrackBands;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Timeline\Mix;

/** What lies in each third octave of the tracks of a mix; those that are as they were last are not worked out again. */
final readonly class Spectra
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
        $tenths = $this->measures->tenthsOf($project);
        $bandsOf = $this->measures->bandsOf($project);
        $bands = [];
        foreach ($mix->tracks as $id => $track) {
            $bands[(string) $id] = $this->measures->remembered(
                $project,
                "bands {$kind}{$id}",
                "{$figures->count} {$states[$id]}",
                static fn (): string => TrackBands::of($mix, $track, $figures->tracks()[$id]->powers, $tenths, $bandsOf),
            );
        }

        return $bands;
    }
}
