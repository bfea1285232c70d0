<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;

/** Sets the fader of a track; those that are linked with it move by the same dB, as far as a fader goes. */
final readonly class SetFader implements Edit
{
    /** @param list<string> $linked other tracks; those that follow a level lane, or are silent, stay */
    public function __construct(private string $track, private Decibels $fader, private array $linked = [])
    {
    }

    public function label(Mix $before): string
    {
        return "Set {$before->track($this->track)->name} to {$this->fader->format()}";
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->track($this->track);

        if ($track->fader->equals($this->fader)) {
            return $before;
        }
        $after = $before->withTrack($track->withFader($this->fader));
        $by = $this->fader->db - $track->fader->db;
        foreach (is_finite($by) ? $this->linked : [] as $id) {
            $other = $before->tracks[$id] ?? $track;
            $moves = $other->id !== $track->id && !$other->hasLevelLane() && !$other->fader->isSilence();
            $after = $moves ? $after->withTrack($other->withFader(Decibels::of(min(Decibels::MAX_FADER, $other->fader->db + $by)))) : $after;
        }

        return $after;
    }
}
