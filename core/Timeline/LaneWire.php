<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/** A lane of a track. It stays on the timeline. A change to a lane of ducking is a correction by hand, and is held from then on. */
final readonly class LaneWire implements PlacedWire
{
    public function __construct(private Mix $mix, private Track $track, private Lane $lane)
    {
    }

    public function curve(): Curve
    {
        return match ($this->lane) {
            Lane::Level => $this->track->levels(),
            Lane::Ducking => $this->track->ducking->curve,
            Lane::Band => $this->track->band->curve,
        };
    }

    public function with(Curve $curve): Mix
    {
        if ($curve == $this->curve()) {
            return $this->mix;
        }

        return $this->mix->withTrack(match ($this->lane) {
            Lane::Level => $this->track->withLanes($this->track->lanes->withLevel($curve)),
            Lane::Ducking => $this->track->withDucking(Held::changed($this->mix, $this->track->ducking, $curve)),
            Lane::Band => $this->track->withBand(Held::changed($this->mix, $this->track->band, $curve)),
        });
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
