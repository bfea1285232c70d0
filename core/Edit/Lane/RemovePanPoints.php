<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Takes points out of the pan lane of a track. */
final readonly class RemovePanPoints implements Edit
{
    /** @param non-empty-list<int> $points timeline samples */
    public function __construct(private string $track, private array $points)
    {
    }

    public function label(Mix $before): string
    {
        $count = \count($this->points);

        return \sprintf('Remove %s of %s', 1 === $count ? 'a pan point' : "{$count} pan points", $before->track($this->track)->name);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $lane = $track->lanes->pan->without(...$this->points);

        return $lane == $track->lanes->pan ? $before : $before->withTrack($track->withLanes($track->lanes->withPan($lane)));
    }
}
