<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Edit\OnTracks;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\TimeMap;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Cuts a range of time out of tracks. What comes later stays, or moves up to close the gap. */
final readonly class RemoveRange implements Edit
{
    public function __construct(private Span $range, private OnTracks $tracks, private bool $close = false)
    {
    }

    public function label(Mix $before): string
    {
        return 'Remove '.Naming::span($before, $this->range).($this->close ? ' and close the gap' : '').$this->tracks->only($before);
    }

    public function apply(Mix $before): Mix
    {
        $knife = new Knife($before);
        $after = $before;
        foreach ($this->tracks->of($before) as $track) {
            $without = $this->without($track, $knife);
            $after = $without === $track ? $after : $after->withTrack($without);
        }

        return $this->close ? Ripple::rest($after, TimeMap::removing($this->range), $this->tracks) : $after;
    }

    private function without(Track $track, Knife $knife): Track
    {
        $track = $knife->through($knife->through($track, $this->range->from), $this->range->to);
        $inside = array_filter($track->clips, fn (Clip $clip): bool => $clip->at >= $this->range->from && $clip->end() <= $this->range->to);
        $track = [] === $inside ? $track : $track->withoutClip(...array_column($inside, 'id'));

        return $this->close ? Ripple::clips($track, TimeMap::removing($this->range)) : $track;
    }
}
