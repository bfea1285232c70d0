<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Ducking\Spectra;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Timeline\Mix;

/** What rules ask for of a project's tracks without any ducking: worked out once for all that is tried. */
final readonly class BareSpectra implements Spectra
{
    public const KIND = 'without ducking ';

    public function __construct(private Project $project, private TrackSpectra $spectra)
    {
    }

    public function bands(Mix $mix, MixFigures $figures): array
    {
        return $this->spectra->of($this->project, $mix, $figures, self::KIND);
    }

    public function shares(Mix $mix, MixFigures $figures, string $track): array
    {
        return $this->spectra->shares($this->project, $mix, $figures, $track, self::KIND);
    }
}
