<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Curve\Stretch;

/** Some frames over which the gain goes g ← g·factor + slope, starting at $gain; either the factor is 1 or the slope 0. */
final readonly class GainStep
{
    public function __construct(public int $frames, public float $gain, public float $factor, public float $slope)
    {
    }

    public static function silence(int $frames): self
    {
        return new self($frames, 0.0, 1.0, 0.0);
    }

    /** The gain after some frames. */
    public function after(int $frames): float
    {
        return 1.0 === $this->factor ? $this->gain + $frames * $this->slope : $this->gain * $this->factor ** $frames;
    }

    /**
     * A stretch as steps of gain that follow the recurrence g ← g·factor + slope from frame to frame.
     *
     * @param int $from within the stretch, as $to
     *
     * @return list<self>
     */
    public static function of(Stretch $stretch, int $from, int $to): array
    {
        if ($stretch->isConstant()) {
            return [new self($to - $from, $stretch->gainAt($from), 1.0, 0.0)];
        }
        if (!$stretch->isSampled()) {
            $first = $stretch->gainAt($from);
            $last = $stretch->gainAt($to);

            return [$stretch->inGain
                ? new self($to - $from, $first, 1.0, ($last - $first) / ($to - $from))
                : new self($to - $from, $first, ($last / $first) ** (1.0 / ($to - $from)), 0.0)];
        }
        $steps = [];
        $left = $stretch->from + intdiv($from - $stretch->from, $stretch->grid) * $stretch->grid;
        $first = $stretch->gainAt($left);
        while ($from < $to) {
            $right = min($left + $stretch->grid, $stretch->to);
            $last = $stretch->gainAt($right);
            $slope = ($last - $first) / ($right - $left);
            $end = min($right, $to);
            $steps[] = new self($end - $from, $first + $slope * ($from - $left), 1.0, $slope);
            $from = $end;
            [$left, $first] = [$right, $last];
        }

        return $steps;
    }
}
