<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Locks a track, so that its clips and their levels stay as they are, or unlocks it. */
final readonly class SetLocked implements Edit
{
    public function __construct(private string $track, private bool $locked)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->locked ? 'Lock ' : 'Unlock ').$before->track($this->track)->name;
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->locked === $this->locked ? $before : $before->withTrack($track->withLocked($this->locked));
    }
}
