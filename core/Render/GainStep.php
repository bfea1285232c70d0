<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

/** Some frames over which the gain goes g ← g·factor + slope, starting at $gain. */
final readonly class GainStep
{
    public function __construct(public int $frames, public float $gain, public float $factor, public float $slope)
    {
    }
}
