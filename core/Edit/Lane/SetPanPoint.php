<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\UnknownItem;

/** Puts a point into the pan lane of a track, or changes one; it stops at its neighbours. */
final readonly class SetPanPoint implements Edit
{
    /**
     * @param ?int $point timeline sample of the point that is changed; null for a new one
     * @param ?int $at where it goes, timeline sample; null where it stays
     * @param ?float $pan −1 left … 1 right; null as it is
     */
    public function __construct(private string $track, private ?int $point, private ?int $at, private ?float $pan)
    {
    }

    public function label(Mix $before): string
    {
        $what = null === $this->point ? 'Add' : 'Change';

        return "{$what} pan point of {$before->track($this->track)->name} at ".Timecode::clock($this->at ?? $this->point ?? 0, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);
        $lane = $track->lanes->pan;
        $base = $track->pans();
        $at = $this->at ?? 0;
        $after = null === $this->point ? $base->with($at, $this->pan ?? $base->at($at)) : $this->changed($lane, $this->point);

        return $after == $lane ? $before : $before->withTrack($track->withLanes($track->lanes->withPan($after)));
    }

    private function changed(PanLane $lane, int $point): PanLane
    {
        $moments = array_column($lane->points, 0);
        $i = array_search($point, $moments, true);
        \is_int($i) || throw UnknownItem::point($this->track);
        $at = max(($moments[$i - 1] ?? -1) + 1, min(($moments[$i + 1] ?? \PHP_INT_MAX) - 1, $this->at ?? $point));

        return $lane->without($point)->with($at, $this->pan ?? $lane->at($point));
    }
}
