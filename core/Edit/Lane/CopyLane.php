<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Gives other tracks a lane of this one. */
final readonly class CopyLane implements Edit
{
    /** @param non-empty-list<string> $to tracks */
    public function __construct(private string $track, private LanePart $lane, private array $to)
    {
    }

    public function label(Mix $before): string
    {
        $to = 1 === \count($this->to) ? $before->track($this->to[0])->name : \sprintf('%d tracks', \count($this->to));

        return "Copy the {$this->lane->value} lane of {$before->track($this->track)->name} to {$to}";
    }

    public function apply(Mix $before): Mix
    {
        $from = $before->track($this->track);
        $after = $before;
        foreach ($this->to as $id) {
            $track = $after->track($id);
            $copied = match ($this->lane) {
                LanePart::Ducking => $track->withDucking($from->ducking),
                LanePart::Band => $track->withBand($from->band),
                LanePart::Level => $track->withLanes($track->lanes->withLevel($from->lanes->level)),
                LanePart::Pan => $track->withLanes($track->lanes->withPan($from->lanes->pan)),
                LanePart::Mute => $track->withLanes($track->lanes->withMute($from->lanes->mute)),
            };
            $after = $copied == $track ? $after : $after->withTrack($copied);
        }

        return $after;
    }
}
