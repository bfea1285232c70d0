<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Timeline\Mix;

/** Sets low cut and tone of all clips of a track together, or takes them away. */
final readonly class SetTrackColour implements Edit
{
    public function __construct(private string $track, private Colour $colour)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->colour->isNone() ? 'No colour on ' : 'Colour of ').$before->track($this->track)->name;
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->colour == $this->colour ? $before : $before->withTrack($track->withColour($this->colour));
    }
}
