<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;

/** Opens blank time: what sounds across the moment is cut there, and all that comes later moves. */
final readonly class InsertTime implements Edit
{
    /**
     * @param int $at timeline samples
     * @param int $length samples > 0
     */
    public function __construct(private int $at, private int $length, private OnTracks $tracks)
    {
    }

    public function label(Mix $before): string
    {
        return 'Insert '.Naming::seconds($before, $this->length).' at '.Timecode::clock($this->at, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        $knife = new Knife($before);
        $after = $before;
        foreach ($this->tracks->of($before) as $track) {
            $after = $after->withTrack(Ripple::later($knife->through($track, $this->at), $this->at, $this->length));
        }
        if ($this->tracks->areAll()) {
            foreach ($before->markers as $marker) {
                $after = $marker->at < $this->at ? $after : $after->withMarker(new Marker($marker->id, $marker->at + $this->length, $marker->name));
            }
            foreach ($before->pictures as $picture) {
                $after = $picture->at < $this->at ? $after : $after->withPicture($picture->movedTo($picture->at + $this->length));
            }
        }

        return $after;
    }
}
