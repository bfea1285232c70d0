<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/** A lane of a track. It stays on the timeline. A change to the ducking lane is a correction by hand, and is held from then on. */
final readonly class LaneWire implements PlacedWire
{
    public function __construct(private Mix $mix, private Track $track, private Lane $lane)
    {
    }

    public function curve(): Curve
    {
        return Lane::Level === $this->lane ? $this->track->levels() : $this->track->ducking->curve;
    }

    public function with(Curve $curve): Mix
    {
        if ($curve == $this->curve()) {
            return $this->mix;
        }

        return $this->mix->withTrack(Lane::Level === $this->lane
            ? $this->track->withLanes($this->track->lanes->withLevel($curve))
            : $this->track->withDucking(Held::changed($this->track->ducking, $curve)));
    }

    public function bounds(): Span
    {
        return Span::of(0, Mix::MAX_HOURS * 3600 * $this->mix->rate);
    }

    public function ahead(): int
    {
        return 0;
    }

    public function gain(): Decibels
    {
        return Decibels::unchanged();
    }

    public function name(): string
    {
        return "the {$this->lane->value} lane of {$this->track->name}";
    }
}
