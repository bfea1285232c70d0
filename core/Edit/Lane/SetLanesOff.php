<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Keeps the lanes of a track but does not follow them, or follows them again. */
final readonly class SetLanesOff implements Edit
{
    public function __construct(private string $track, private bool $off)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->off ? 'Do not follow' : 'Follow').' the lanes of '.$before->track($this->track)->name;
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->lanes->off === $this->off ? $before : $before->withTrack($track->withLanes($track->lanes->withOff($this->off)));
    }
}
