<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Mix;

/** Sets the pan of a track, −1 left … 1 right. */
final readonly class SetPan implements Edit
{
    public function __construct(private string $track, private float $pan)
    {
    }

    public function label(Mix $before): string
    {
        return "Pan {$before->track($this->track)->name} ".Naming::pan($this->pan);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->pan === $this->pan ? $before : $before->withTrack($track->withPan($this->pan));
    }
}
