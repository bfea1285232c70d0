<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;

/**
 * A piece of level over [from, to), in the only three shapes that the renderer and the player know.
 *
 * With x = (t − from) / (to − from):
 *  - decibels: dB(x) = base + slope·x + bend·x². Without bend it is constant or exponential in gain, followed exactly. With
 *    bend, its definition is the row of points every `grid` samples from `from`, and at `to`, joined by straight lines in gain; the
 *    grid is so fine that this stays within −100 dB of the parabola.
 *  - gain: gain(x) = base + slope·x, straight in gain (silence is base 0, slope 0).
 */
final readonly class Stretch
{
    /** Spacings of points to choose from, in samples: 2 ms at 48 kHz, and finer for steep ramps. */
    private const GRIDS = [96, 48, 24, 12, 4, 2, 1];

    /** Largest distance of a straight line from the curve between two points, as a part of the gain. */
    private const TOLERANCE = 1e-5;

    /** Samples between the points of a bent stretch. */
    public int $grid;

    private function __construct(public int $from, public int $to, public bool $inGain, public float $base, public float $slope, public float $bend)
    {
        $this->grid = $this->coarsestGrid();
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

            return new self($this->from, $this->to, true, $this->inGain ? $this->base * $ratio : 0.0, $this->inGain ? $this->slope * $ratio : 0.0, 0.0);
        }

        return new self($this->from, $this->to, false, $this->base + $by->db, $this->slope, $this->bend);
    }

    public function isConstant(): bool
    {
        return 0.0 === $this->slope && 0.0 === $this->bend;
    }

    public function isBent(): bool
    {
        return 0.0 !== $this->bend;
    }

    /** Gain of the ideal shape at a position in [from, to]. */
    public function gainAt(int|float $position): float
    {
        $x = ($position - $this->from) / ($this->to - $this->from);
        if ($this->inGain) {
            return $this->base + $this->slope * $x;
        }

        return 10.0 ** (($this->base + $this->slope * $x + $this->bend * $x * $x) / 20.0);
    }

    /** Gain that is applied at a position in [from, to): as gainAt, but straight between the points of a bent stretch. */
    public function appliedGainAt(int $position): float
    {
        if (!$this->isBent()) {
            return $this->gainAt($position);
        }
        $left = $this->from + intdiv($position - $this->from, $this->grid) * $this->grid;
        $right = min($left + $this->grid, $this->to);
        $first = $this->gainAt($left);

        return $first + ($this->gainAt($right) - $first) * ($position - $left) / ($right - $left);
    }

    /**
     * A straight line over h samples is at most h²/8·|g″| from the curve g (linear interpolation). With g = 10^(q/20), g″/g is
     * (q′·k)² + q″·k, where k = ln 10 / 20; q′ is greatest at one of the ends.
     */
    private function coarsestGrid(): int
    {
        $k = log(10.0) / 20.0;
        $steepest = max(abs($this->slope), abs($this->slope + 2.0 * $this->bend)) * $k;
        $curvature = ($steepest * $steepest + 2.0 * abs($this->bend) * $k) / ($this->to - $this->from) ** 2;
        foreach (self::GRIDS as $grid) {
            if ($grid * $grid / 8.0 * $curvature <= self::TOLERANCE) {
                return $grid;
            }
        }

        return self::GRIDS[\count(self::GRIDS) - 1];
    }
}
