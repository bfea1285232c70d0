<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Mutes a track over a range, or lets it be heard there. */
final readonly class SetMuteRange implements Edit
{
    /** @param Span $range timeline samples */
    public function __construct(private string $track, private Span $range, private bool $muted)
    {
    }

    public function label(Mix $before): string
    {
        $name = $before->track($this->track)->name;

        return ($this->muted ? "Mute {$name}, " : "Let {$name} be heard, ").Naming::span($before, $this->range);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $lane = $track->lanes->mute->written($this->range->from, [[$this->range->from, $this->muted]], $this->range->to);

        return $lane == $track->lanes->mute ? $before : $before->withTrack($track->withLanes($track->lanes->withMute($lane)));
    }
}
