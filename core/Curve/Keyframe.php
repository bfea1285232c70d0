<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;

/** A level at a moment, and the ramp that leaves it. */
final readonly class Keyframe
{
    /** @param int $position samples ≥ 0; source time on a clip, timeline time on a track */
    public function __construct(public int $position, public Decibels $level, public Ramp $ramp)
    {
        if ($position < 0) {
            throw InvalidCurve::negativePosition();
        }
    }

    public function at(int $position): self
    {
        return new self($position, $this->level, $this->ramp);
    }

    public function withLevel(Decibels $level): self
    {
        return new self($this->position, $level, $this->ramp);
    }

    public function withRamp(Ramp $ramp): self
    {
        return new self($this->position, $this->level, $ramp);
    }
}
