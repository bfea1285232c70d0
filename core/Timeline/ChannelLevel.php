<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;

/** How loud one channel of an opened clip is, besides the gain and the curve of the clip itself. */
final readonly class ChannelLevel
{
    public function __construct(public Decibels $gain, public Curve $curve, public bool $muted)
    {
        $gain->atMost(Decibels::MAX_CLIP);
    }

    public static function usual(): self
    {
        return new self(Decibels::unchanged(), Curve::flat(), false);
    }

    public function withGain(Decibels $gain): self
    {
        return new self($gain, $this->curve, $this->muted);
    }

    public function withCurve(Curve $curve): self
    {
        return new self($this->gain, $curve, $this->muted);
    }

    public function withMuted(bool $muted): self
    {
        return new self($this->gain, $this->curve, $muted);
    }
}
