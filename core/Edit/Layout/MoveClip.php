<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** Moves a clip in time, or to another track, or both. Its keyframes travel with its sound. */
final readonly class MoveClip implements Edit
{
    /** @param int $at timeline samples */
    public function __construct(private string $clip, private string $track, private int $at)
    {
    }

    public function label(Mix $before): string
    {
        return "Move {$before->clip($this->clip)->name} to ".Timecode::clock($this->at, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        $from = $before->trackOf($this->clip);
        $clip = $from->clips[$this->clip];
        if ($from->id === $this->track && $clip->at === $this->at) {
            return $before;
        }
        $moved = $clip->movedTo($this->at);
        if ($from->id === $this->track) {
            return $before->withTrack($from->withClip($moved));
        }
        $target = $before->track($this->track);

        return $before->withTrack($from->withoutClip($this->clip))->withTrack($target->withClip($moved));
    }
}
