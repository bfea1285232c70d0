<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/** A gain over time that others are multiplied with. Its bounds tell how fine the points must be that stand in for it. */
interface Factor
{
    /** Gain, 1.0 = unchanged. */
    public function gainAt(int|float $position): float;

    /** An upper bound of the gain. */
    public function highest(): float;

    /** An upper bound of its change per sample. */
    public function steepest(): float;

    /** An upper bound of the change of that change, per sample². */
    public function sharpest(): float;
}
