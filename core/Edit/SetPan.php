<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Mix;

/** Sets the pan of a track, −1 left … 1 right. */
final readonly class SetPan implements Edit
{
    public function __construct(private string $track, private float $pan)
    {
    }

    public function label(Mix $before): string
    {
        $side = match (true) {
            $this->pan < 0.0 => \sprintf('%d %% left', (int) round(-100 * $this->pan)),
            $this->pan > 0.0 => \sprintf('%d %% right', (int) round(100 * $this->pan)),
            default => 'centre',
        };

        return "Pan {$before->track($this->track)->name} {$side}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        return $track->pan === $this->pan ? $before : $before->withTrack($track->withPan($this->pan));
    }
}
