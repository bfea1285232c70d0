<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Gives a track another place in the order. */
final readonly class PlaceTrack implements Edit
{
    /** @param int $place 0 is first */
    public function __construct(private string $track, private int $place)
    {
    }

    public function label(Mix $before): string
    {
        return "Move track {$before->track($this->track)->name}";
    }

    public function apply(Mix $before): Mix
    {
        $after = $before->withTrackAt($this->track, $this->place);

        return array_keys($after->tracks) === array_keys($before->tracks) ? $before : $after;
    }
}
