<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

/** How high the samples of a programme are, as far as that is known. */
final readonly class KnownPeaks
{
    /**
     * @param float $highest of all, full scale is 1
     * @param array<int, float> $over those that pass full scale, or may, by number of the 100 ms
     * @param bool $isExact whether the highest of them, and all above full scale, are no mere bounds
     */
    public function __construct(public float $highest, public array $over, public bool $isExact)
    {
    }
}
