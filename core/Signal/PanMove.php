<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

use Wattage\Core\Curve\Factor;

/** One gain of the pan equations while the pan goes straight from one value to another, both on the same side of the centre. */
final readonly class PanMove implements Factor
{
    private float $first;
    private float $turn;

    /**
     * @param float $from pan at $start
     * @param float $to pan at $end, of the same sign
     * @param bool $sine whether it is the gain that rises with the pan
     */
    public function __construct(private int $start, private int $end, float $from, float $to, private bool $sine)
    {
        $side = $from < 0.0 || $to < 0.0 ? 1.0 : 0.0;
        $this->first = ($from + $side) * \M_PI / 2.0;
        $this->turn = ($to - $from) * \M_PI / 2.0;
    }

    public function gainAt(int|float $position): float
    {
        $x = $this->first + $this->turn * max(0.0, min(1.0, ($position - $this->start) / ($this->end - $this->start)));

        return $this->sine ? sin($x) : cos($x);
    }

    public function highest(): float
    {
        return 1.0;
    }

    public function steepest(): float
    {
        return abs($this->turn) / ($this->end - $this->start);
    }

    public function sharpest(): float
    {
        return $this->steepest() ** 2;
    }
}
