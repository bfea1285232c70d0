<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Level\InvalidLevel;

/** Automation of a track: what its fader, pan and mute do over time. It stays on the timeline when clips are moved or replaced. */
final readonly class Lanes
{
    public PanLane $pan;
    public MuteLane $mute;

    /**
     * @param Curve $level in place of the fader, where it has keyframes
     * @param bool $off whether the lanes are kept but not followed
     *
     * @throws InvalidMix|InvalidLevel
     */
    public function __construct(public Curve $level, ?PanLane $pan = null, ?MuteLane $mute = null, public bool $off = false)
    {
        try {
            foreach ($level->keyframes as $keyframe) {
                $keyframe->level->atMost(Decibels::MAX_FADER);
            }
        } catch (InvalidLevel $problem) {
            throw $problem->about('level');
        }
        $this->pan = $pan ?? new PanLane();
        $this->mute = $mute ?? new MuteLane();
    }

    public static function none(): self
    {
        return new self(Curve::flat());
    }

    public function withLevel(Curve $level): self
    {
        return new self($level, $this->pan, $this->mute, $this->off);
    }

    public function withPan(PanLane $pan): self
    {
        return new self($this->level, $pan, $this->mute, $this->off);
    }

    public function withMute(MuteLane $mute): self
    {
        return new self($this->level, $this->pan, $mute, $this->off);
    }

    public function withOff(bool $off): self
    {
        return new self($this->level, $this->pan, $this->mute, $off);
    }
}
