<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** Says what kind of sound a track carries. */
final readonly class SetStem implements Edit
{
    public function __construct(private string $track, private Stem $stem)
    {
    }

    public function label(Mix $before): string
    {
        return "Count {$before->track($this->track)->name} as {$this->stem->value}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->stem === $this->stem ? $before : $before->withTrack($track->withStem($this->stem));
    }
}
