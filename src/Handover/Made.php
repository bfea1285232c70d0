<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Wattage\Core\Handover\GuardActs;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Signal\Clipping;

/** A file that was made, and what came of it. */
final readonly class Made
{
    /**
     * @param string $file where it is
     * @param Loudness $measured of what is in it
     * @param float $gain dB that the whole was turned up by
     * @param bool $isMet whether it is as loud as it was to be
     * @param GuardActs $acts with frames of the file
     * @param Clipping $clipping with samples of the timeline
     */
    public function __construct(public string $file, public Loudness $measured, public float $gain, public bool $isMet, public GuardActs $acts, public Clipping $clipping)
    {
    }
}
