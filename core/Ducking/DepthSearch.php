<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Timeline\DuckPart;

/** How far a part of the targets has to be down for so much to be understood, begun from a guess: from one moment to the next little changes. */
final readonly class DepthSearch
{
    /** How near it is come to what is sought; never short of it. */
    private const CLOSE = 0.006;
    /** Steps between two ends; each third one halves, for where the index bends. */
    private const ROUNDS = 15;
    /** dB for all of the index, where every band is heard in part; where fewer are it takes more. */
    private const DECIBELS = 30.0;
    /** dB that a step without a second end takes at least, and how much more the next one is. */
    private const STEP = 0.25;
    private const LONGER = 3.0;

    /** @param float $deepest dB, below 0 */
    public function __construct(private float $deepest)
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
        $short = $enough = null;
        $aim = $sought + 0.5 * self::CLOSE;
        $least = self::STEP;
        $at = $from;
        for ($between = 0; $between < self::ROUNDS;) {
            $index = $passage->index($at, $part);
            $index >= $sought ? $enough = [$at, $index] : $short = [$at, $index];
            if ($index >= $sought ? $at >= 0.0 || $index - $sought <= self::CLOSE : $at <= $this->deepest) {
                return [$at, $index];
            }
            if (null !== $enough && null !== $short) {
                // Between two ends a straight line comes near at once: the index is nearly that.
                $place = 0 === ++$between % 3 ? 0.5 : ($aim - $short[1]) / max(1e-9, $enough[1] - $short[1]);
                $at = $short[0] + max(0.1, min(0.9, $place)) * ($enough[0] - $short[0]);
                continue;
            }
            $step = max($least, self::DECIBELS * abs($aim - $index));
            $at = max($this->deepest, min(0.0, $index < $sought ? $at - $step : $at + $step));
            $least *= self::LONGER;
        }

        return $enough;
    }
}
