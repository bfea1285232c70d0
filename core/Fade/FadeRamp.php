<?php

declare(strict_types=1);

namespace Wattage\Core\Fade;

use Wattage\Core\Curve\Factor;

/** A fade in its place: from nothing up over [from, to), or down to nothing. */
final readonly class FadeRamp implements Factor
{
    /**
     * @param int $from samples
     * @param int $to samples > $from
     * @param Fade $fade its shape and window; its length is that of the place
     */
    public function __construct(public int $from, public int $to, public Fade $fade, public bool $falling)
    {
    }

    public function gainAt(int|float $position): float
    {
        $x = max(0.0, min(1.0, ($position - $this->from) / ($this->to - $this->from)));

        $x = $this->falling ? 1.0 - $x : $x;

        return $this->fade->shape->gainAt($this->fade->windowFrom + ($this->fade->windowTo - $this->fade->windowFrom) * $x);
    }

    public function highest(): float
    {
        return 1.0;
    }

    public function steepest(): float
    {
        return $this->fade->shape->steepest() * ($this->fade->windowTo - $this->fade->windowFrom) / ($this->to - $this->from);
    }

    public function sharpest(): float
    {
        return $this->fade->shape->sharpest() * (($this->fade->windowTo - $this->fade->windowFrom) / ($this->to - $this->from)) ** 2;
    }
}
