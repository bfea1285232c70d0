<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Mutes a track, or lets it sound again. */
final readonly class SetMuted implements Edit
{
    public function __construct(private string $track, private bool $muted)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->muted ? 'Mute ' : 'Unmute ').$before->track($this->track)->name;
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->muted === $this->muted ? $before : $before->withTrack($track->withMuted($this->muted));
    }
}
