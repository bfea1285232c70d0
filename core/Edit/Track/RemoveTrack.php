<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Removes a track with its clips. */
final readonly class RemoveTrack implements Edit
{
    public function __construct(private string $track)
    {
    }

    public function label(Mix $before): string
    {
        return "Remove track {$before->track($this->track)->name}";
    }

    public function apply(Mix $before): Mix
    {
        return $before->withoutTrack($this->track);
    }
}
