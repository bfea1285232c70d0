<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** What measuring found about a source as a whole. */
final readonly class Totals
{
    /** @param float $peak highest absolute sample, 1.0 = full scale */
    public function __construct(public int $frames, public float $peak)
    {
    }
}
