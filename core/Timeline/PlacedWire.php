<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/** A wire where it hangs: its curve, the part of it that counts, and how its time stands to that of the timeline. */
interface PlacedWire
{
    public function curve(): Curve;

    /** The mix with another curve in its place. */
    public function with(Curve $curve): Mix;

    /** The part that counts, in the curve's own time. */
    public function bounds(): Span;

    /** Samples by which the curve's own time is ahead of the timeline's. */
    public function ahead(): int;

    /** Level that lies under the curve all along. */
    public function gain(): Decibels;

    /** As labels call it. */
    public function name(): string;
}
