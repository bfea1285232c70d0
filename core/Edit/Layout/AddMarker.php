<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;

/** Names a moment. */
final readonly class AddMarker implements Edit
{
    public function __construct(private Marker $marker)
    {
    }

    public function label(Mix $before): string
    {
        return "Mark {$this->marker->name} at ".Timecode::clock($this->marker->at, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        isset($before->markers[$this->marker->id]) && throw InvalidMix::idTaken($this->marker->id, 'marker');

        return $before->withMarker($this->marker);
    }
}
