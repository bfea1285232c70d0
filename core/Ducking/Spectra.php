<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Timeline\Mix;

/** What lies in the bands of tracks, as far as rules ask for it; whoever works it out may remember it. */
interface Spectra
{
    /** @return array<string, string> third octaves every 100 ms of each track, by id: see {@see \Wattage\Core\Clarity\TrackBands} */
    public function bands(Mix $mix, MixFigures $figures): array;

    /** @return array{Series, Series, Series} what becomes of the power of a track when its band of speech gives way: see {@see BandShares} */
    public function shares(Mix $mix, MixFigures $figures, string $track): array;
}
