<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** Adds an empty track at the end. */
final readonly class AddTrack implements Edit
{
    public function __construct(private string $track, private string $name, private Stem $stem)
    {
    }

    public function label(Mix $before): string
    {
        return "Add track {$this->name}";
    }

    public function apply(Mix $before): Mix
    {
        isset($before->tracks[$this->track]) && throw InvalidMix::idTaken($this->track, 'track');

        return $before->withTrack(Track::named($this->track, $this->name, $this->stem));
    }
}
