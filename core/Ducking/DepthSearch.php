<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Timeline\DuckPart;

/**
 * How far a part of the targets has to be down for so much to be understood. From one moment to the next little changes: so it is begun from a guess, and what a decibel did
 * last is what it is taken to do.
 */
final class DepthSearch
{
    /** How near it is come to what is sought; never short of it. */
    private const CLOSE = 0.006;
    /** Steps between two ends; each third one halves, for where the index bends. */
    private const ROUNDS = 15;
    /** dB for all of the index: where every band is heard in part, and where hardly any is. */
    private const FEWEST = 30.0;
    private const MOST = 200.0;
    /** dB that a step without a second end takes at least, and how much more the next one is. */
    private const STEP = 0.25;
    private const LONGER = 3.0;

    private float $decibels = self::FEWEST;

    /** @param float $deepest dB, below 0 */
    public function __construct(private readonly float $deepest)
    {
    }

    /**
     * @param float $sought index, 0 … 1
     * @param float $from dB to begin with
     *
     * @return array{float, float} dB, and the index there: less than what is sought where the deepest is too little
     */
    public function to(float $sought, Passage $passage, DuckPart $part, float $from): array
    {
        $short = $enough = $last = null;
        $aim = $sought + 0.5 * self::CLOSE;
        $least = self::STEP;
        $at = $from;
        for ($between = 0; $between < self::ROUNDS;) {
            $index = $passage->index($at, $part);
            $index >= $sought ? $enough = [$at, $index] : $short = [$at, $index];
            if (null !== $last && $index !== $last[1]) {
                $this->decibels = max(self::FEWEST, min(self::MOST, abs(($at - $last[0]) / ($index - $last[1]))));
            }
            if ($index >= $sought ? $at >= 0.0 || $index - $sought <= self::CLOSE : $at <= $this->deepest) {
                return [$at, $index];
            }
            $last = [$at, $index];
            if (null !== $enough && null !== $short) {
                // Between two ends a straight line comes near at once: the index is nearly that.
                $place = 0 === ++$between % 3 ? 0.5 : ($aim - $short[1]) / max(1e-9, $enough[1] - $short[1]);
                $at = $short[0] + max(0.1, min(0.9, $place)) * ($enough[0] - $short[0]);
                continue;
            }
            $step = max($least, $this->decibels * abs($aim - $index));
            $at = max($this->deepest, min(0.0, $index < $sought ? $at - $step : $at + $step));
            $least *= self::LONGER;
        }

        return $enough;
    }
}
