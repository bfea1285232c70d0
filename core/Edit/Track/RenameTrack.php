<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Gives a track another name. */
final readonly class RenameTrack implements Edit
{
    public function __construct(private string $track, private string $name)
    {
    }

    public function label(Mix $before): string
    {
        return "Rename track {$before->track($this->track)->name} to {$this->name}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->name === $this->name ? $before : $before->withTrack($track->withName($this->name));
    }
}
