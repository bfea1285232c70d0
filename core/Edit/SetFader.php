<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;

/** Sets the fader of a track. */
final readonly class SetFader implements Edit
{
    public function __construct(private string $track, private Decibels $fader)
    {
    }

    public function label(Mix $before): string
    {
        return "Set {$before->track($this->track)->name} to {$this->fader->format()}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->fader->equals($this->fader) ? $before : $before->withTrack($track->withFader($this->fader));
    }
}
