<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Edit\OnTracks;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Time\TimeMap;
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
        return 'Insert '.Naming::seconds($before, $this->length).' at '.Timecode::clock($this->at, $before->rate).$this->tracks->only($before);
    }

    public function apply(Mix $before): Mix
    {
        $knife = new Knife($before);
        $map = TimeMap::inserting($this->at, $this->length);
        $after = $before;
        foreach ($this->tracks->of($before) as $track) {
            $after = $after->withTrack(Ripple::clips($knife->through($track, $this->at), $map));
        }

        return Ripple::rest($after, $map, $this->tracks);
    }
}
