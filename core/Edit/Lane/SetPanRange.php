<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Brings the pan lane of a track to one side over a range, with straight ramps before and after it. */
final readonly class SetPanRange implements Edit
{
    /**
     * @param Span $range timeline samples
     * @param float $pan −1 left … 1 right
     * @param int $ramp samples
     */
    public function __construct(private string $track, private Span $range, private float $pan, private int $ramp)
    {
    }

    public function label(Mix $before): string
    {
        return "Pan {$before->track($this->track)->name} ".Naming::pan($this->pan).', '.Naming::span($before, $this->range);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $lane = $track->lanes->pan;
        $old = $track->pans();
        [$from, $to] = [$this->range->from, $this->range->to];
        $start = max(0, $from - max(1, $this->ramp));
        $end = $to + max(1, $this->ramp);
        $way = $start < $from ? [[$start, $old->at($start)]] : [];
        $after = $old->written($start, [...$way, [$from, $this->pan], [$to, $this->pan], [$end, $old->at($end)]], $end);

        return $after == $lane ? $before : $before->withTrack($track->withLanes($track->lanes->withPan($after)));
    }
}
