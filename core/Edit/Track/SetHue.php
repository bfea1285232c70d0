<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Hue;
use Wattage\Core\Timeline\Mix;

/** Draws a track in another ink, or in that of its stem again. */
final readonly class SetHue implements Edit
{
    public function __construct(private string $track, private ?Hue $hue)
    {
    }

    public function label(Mix $before): string
    {
        return "Draw {$before->track($this->track)->name} in ".($this->hue->value ?? 'the ink of its kind');
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->hue === $this->hue ? $before : $before->withTrack($track->withHue($this->hue));
    }
}
