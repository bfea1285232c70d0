<?php

declare(strict_types=1);

namespace Wattage\Core\Fade;

use Wattage\Core\Curve\Factor;

/** A fade in its place: from nothing up over [from, to), or down to nothing. */
final readonly class FadeRamp implements Factor
{
    public function __construct(public int $from, public int $to, public FadeShape $shape, public bool $falling)
    {
    }

    public function gainAt(int|float $position): float
    {
        $x = max(0.0, min(1.0, ($position - $this->from) / ($this->to - $this->from)));

        return $this->shape->gainAt($this->falling ? 1.0 - $x : $x);
    }

    public function highest(): float
    {
        return 1.0;
    }

    public function steepest(): float
    {
        return $this->shape->steepest() / ($this->to - $this->from);
    }

    public function sharpest(): float
    {
        return $this->shape->sharpest() / ($this->to - $this->from) ** 2;
    }
}
