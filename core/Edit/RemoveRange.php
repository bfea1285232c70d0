<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Marker;
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
        return 'Remove '.Naming::span($before, $this->range).($this->close ? ' and close the gap' : '');
    }

    public function apply(Mix $before): Mix
    {
        $knife = new Knife($before);
        $after = $before;
        foreach ($this->tracks->of($before) as $track) {
            $without = $this->without($track, $knife);
            $after = $without === $track ? $after : $after->withTrack($without);
        }
        if ($this->close && $this->tracks->areAll()) {
            $after = $this->withMarkersMoved($after);
        }

        return $after;
    }

    private function without(Track $track, Knife $knife): Track
    {
        $track = $knife->through($knife->through($track, $this->range->from), $this->range->to);
        $inside = array_filter($track->clips, fn (Clip $clip): bool => $clip->at >= $this->range->from && $clip->end() <= $this->range->to);
        $track = [] === $inside ? $track : $track->withoutClip(...array_column($inside, 'id'));

        return $this->close ? Ripple::later($track, $this->range->to, -$this->range->length()) : $track;
    }

    private function withMarkersMoved(Mix $mix): Mix
    {
        foreach ($mix->markers as $marker) {
            if ($marker->at >= $this->range->to) {
                $mix = $mix->withMarker(new Marker($marker->id, $marker->at - $this->range->length(), $marker->name));
            } elseif ($marker->at >= $this->range->from) {
                $mix = $mix->withoutMarker($marker->id);
            }
        }
        foreach ($mix->pictures as $picture) {
            $mix = $picture->at >= $this->range->to ? $mix->withPicture($picture->movedTo($picture->at - $this->range->length())) : $mix;
        }

        return $mix;
    }
}
