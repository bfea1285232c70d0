<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;

/**
 * A piece of level over [from, to), in the few shapes that the renderer and the player know.
 *
 * With x = (t − from) / (to − from):
 *  - decibels: dB(x) = base + slope·x + bend·x². Without bend it is constant or exponential in gain, followed exactly.
 *  - gain: gain(x) = base + slope·x, straight in gain (silence is base 0, slope 0).
 * Factors, such as a fade, are multiplied with it. With a bend or a factor its definition is the row of points every `grid`
 * samples from `from`, and at `to`, joined by straight lines in gain; the grid is so fine that this stays within −100 dB of
 * the ideal shape.
 */
final readonly class Stretch implements Factor
{
    /** Spacings of points to choose from, in samples: 8 ms at 48 kHz, and finer for steep ramps. */
    private const GRIDS = [384, 192, 96, 48, 24, 12, 4, 2, 1];

    /** Largest distance of a straight line from the shape between two points, as a part of the highest gain. */
    private const TOLERANCE = 1e-5;

    /** Samples between the points of a sampled stretch. */
    public int $grid;

    /**
     * @param list<Factor> $factors
     * @param ?int $grid where it is known already: that of the same shape at another gain is the same
     */
    private function __construct(
        public int $from,
        public int $to,
        public bool $inGain,
        public float $base,
        public float $slope,
        public float $bend,
        public array $factors = [],
        ?int $grid = null,
    ) {
        $this->grid = $grid ?? ($this->isSampled() ? $this->coarsestGrid() : self::GRIDS[0]);
    }

    public static function decibels(int $from, int $to, float $base, float $slope = 0.0, float $bend = 0.0): self
    {
        return -\INF === $base ? self::gain($from, $to, 0.0, 0.0) : new self($from, $to, false, $base, $slope, $bend);
    }

    public static function gain(int $from, int $to, float $first, float $last): self
    {
        return new self($from, $to, true, $first, $last - $first, 0.0);
    }

    /** The same stretch, louder by a fixed gain. */
    public function raised(Decibels $by): self
    {
        if ($this->inGain || $by->isSilence()) {
            $ratio = $by->isSilence() ? 0.0 : $by->ratio();

            return new self($this->from, $this->to, true, $this->inGain ? $this->base * $ratio : 0.0, $this->inGain ? $this->slope * $ratio : 0.0, 0.0, 0.0 === $ratio ? [] : $this->factors);
        }

        return new self($this->from, $this->to, false, $this->base + $by->db, $this->slope, $this->bend, $this->factors, $this->grid);
    }

    /** The part of it over [$from, $to), which must lie within. The same shape, put in terms of the shorter way. */
    public function cut(int $from, int $to): self
    {
        if ($from === $this->from && $to === $this->to) {
            return $this;
        }
        $whole = $this->to - $this->from;
        $start = ($from - $this->from) / $whole;
        $part = ($to - $from) / $whole;

        return new self(
            $from,
            $to,
            $this->inGain,
            $this->base + $this->slope * $start + $this->bend * $start * $start,
            ($this->slope + 2.0 * $this->bend * $start) * $part,
            $this->bend * $part * $part,
            $this->factors,
        );
    }

    /** The same stretch multiplied with something else that has a gain. Two stretches in dB become one. */
    public function times(Factor $factor): self
    {
        if ($factor instanceof self) {
            $factor = $factor->cut($this->from, $this->to);
            if ($factor->isConstant()) {
                return $this->raised(Decibels::fromRatio($factor->gainAt($this->from)));
            }
            if (!$this->inGain && !$factor->inGain) {
                return new self($this->from, $this->to, false, $this->base + $factor->base, $this->slope + $factor->slope, $this->bend + $factor->bend, [...$this->factors, ...$factor->factors]);
            }
        }

        return $this->isSilent() ? $this : new self($this->from, $this->to, $this->inGain, $this->base, $this->slope, $this->bend, [...$this->factors, $factor]);
    }

    public function isConstant(): bool
    {
        return 0.0 === $this->slope && 0.0 === $this->bend && [] === $this->factors;
    }

    public function isSilent(): bool
    {
        return $this->inGain && 0.0 === $this->base && 0.0 === $this->slope;
    }

    /** Whether it is defined by points rather than followed exactly. */
    public function isSampled(): bool
    {
        return 0.0 !== $this->bend || [] !== $this->factors;
    }

    /** Gain of the ideal shape at a position in [from, to]. */
    public function gainAt(int|float $position): float
    {
        $x = ($position - $this->from) / ($this->to - $this->from);
        $gain = $this->inGain
            ? $this->base + $this->slope * $x
            : 10.0 ** (($this->base + $this->slope * $x + $this->bend * $x * $x) / 20.0);
        foreach ($this->factors as $factor) {
            $gain *= $factor->gainAt($position);
        }

        return $gain;
    }

    /** Gain that is applied at a position in [from, to): as gainAt, but straight between the points of a sampled stretch. */
    public function appliedGainAt(int $position): float
    {
        if (!$this->isSampled()) {
            return $this->gainAt($position);
        }
        $left = $this->from + intdiv($position - $this->from, $this->grid) * $this->grid;
        $right = min($left + $this->grid, $this->to);
        $first = $this->gainAt($left);

        return $first + ($this->gainAt($right) - $first) * ($position - $left) / ($right - $left);
    }

    public function highest(): float
    {
        return $this->bounds()[0];
    }

    public function steepest(): float
    {
        return $this->bounds()[1];
    }

    public function sharpest(): float
    {
        return $this->bounds()[2];
    }

    /** A straight line over h samples is at most h²/8·|g″| from the curve g (linear interpolation). */
    private function coarsestGrid(): int
    {
        [$highest, , $sharpest] = $this->bounds();
        foreach (self::GRIDS as $grid) {
            if ($grid * $grid / 8.0 * $sharpest <= self::TOLERANCE * $highest) {
                return $grid;
            }
        }

        return self::GRIDS[\count(self::GRIDS) - 1];
    }

    /**
     * Bounds of g, g′ and g″ per sample. With g = 10^(q/20), g′ = g·q′·k and g″ = g·((q′·k)² + q″·k), where k = ln 10 / 20; q′ is
     * greatest at one of the ends. For products, (f·g)″ = f″·g + 2·f′·g′ + f·g″.
     *
     * @return array{float, float, float}
     */
    private function bounds(): array
    {
        $n = $this->to - $this->from;
        if ($this->inGain) {
            $bounds = [max($this->base, $this->base + $this->slope), abs($this->slope) / $n, 0.0];
        } else {
            $k = log(10.0) / 20.0;
            $top = 0.0 === $this->bend ? 0.0 : max(0.0, min(1.0, -$this->slope / (2.0 * $this->bend)));
            $highest = 10.0 ** (max($this->base, $this->base + $this->slope + $this->bend, $this->base + $this->slope * $top + $this->bend * $top * $top) / 20.0);
            $steepest = max(abs($this->slope), abs($this->slope + 2.0 * $this->bend)) * $k / $n;
            $bounds = [$highest, $highest * $steepest, $highest * ($steepest * $steepest + 2.0 * abs($this->bend) * $k / ($n * $n))];
        }
        foreach ($this->factors as $factor) {
            [$g, $g1, $g2] = $bounds;
            [$f, $f1, $f2] = [$factor->highest(), $factor->steepest(), $factor->sharpest()];
            $bounds = [$f * $g, $f1 * $g + $f * $g1, $f2 * $g + 2.0 * $f1 * $g1 + $f * $g2];
        }

        return $bounds;
    }
}
