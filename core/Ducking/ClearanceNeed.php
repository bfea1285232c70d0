<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Loudness\Series;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Speech\Fix;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;

/** As far as a clearance needs: power of the targets against what the speech leaves room for, every 100 ms. */
final readonly class ClearanceNeed implements Need
{
    /** dB on top, so that what is worked out every 100 ms still holds in the render; what follows from moment to moment is laid lower as it is. */
    private const MARGIN = 0.3;
    private const MOVING_MARGIN = 0.25;
    /** dB below all else: what cannot be reached because of the rest is not sought any further than this, where it would only take the music away. */
    private const ENOUGH = -10.0;
    private const HALVINGS = 14;

    /** @param array<string, array{Series, Series, Series}> $targets by id: power without the band of speech, and what grows with what is left of it and its square; see {@see BandShares} */
    public function __construct(private Clearance $clearance, private DuckRule $rule, private array $targets)
    {
    }

    public function between(int $from, int $to): array
    {
        $room = 10.0 ** (($this->rule->clearance + ($this->rule->moving ? self::MOVING_MARGIN : self::MARGIN)) / 10.0);
        $others = array_diff_key($this->clearance->restBetween($from, $to), $this->targets);
        $parts = [];
        foreach ($this->targets as $target) {
            $parts[] = array_map(fn (Series $row): array => $this->clearance->between($row, $from, $to), $target);
        }
        $needs = [];
        foreach ($this->clearance->speechBetween($from, $to) as $k => $speech) {
            $beside = 0.0;
            foreach ($others as $row) {
                $beside += $row[$k];
            }
            $none = $once = $twice = 0.0;
            foreach ($parts as [$a, $b, $c]) {
                $none += $a[$k];
                $once += $b[$k];
                $twice += $c[$k];
            }
            $needs[$k] = $this->given($speech / $room, $beside, $none, $once, $twice);
        }

        return $needs;
    }

    public function furthest(int $from, int $to): Given
    {
        return Given::furthest($this->between($from, $to));
    }

    /**
     * @param float $allowed power that everything else may have
     * @param float $beside power of what does not give way
     */
    private function given(float $allowed, float $beside, float $none, float $once, float $twice): Given
    {
        $budget = $allowed - $beside;
        if ($none + $once + $twice <= $budget) {
            return new Given(0.0);
        }
        if ($none + $once + $twice <= 0.0) {
            return new Given(0.0, 0.0, false, self::lift($beside, $allowed)); // what gives way is not what covers the speech
        }
        $deepest = $this->rule->deepest;
        if (DuckPart::All === $this->rule->part) {
            return self::all($allowed, $beside, $none + $once + $twice, $deepest, 0.0);
        }
        $band = DuckPart::Band === $this->rule->part ? $deepest : max($deepest, DuckPart::MOST_OF_BAND);
        $least = 10.0 ** ($band / 20.0);
        $left = $none + $least * ($once + $least * $twice);
        if ($left > $budget) {
            return DuckPart::Band === $this->rule->part
                ? new Given(0.0, $band, false, self::lift($beside + $left, $allowed))
                : self::bandThenAll($allowed, $beside, $left, $none + $once + $twice, $deepest, $band);
        }
        [$low, $high] = [$band, 0.0];
        for ($i = 0; $i < self::HALVINGS; ++$i) {
            $middle = 0.5 * ($low + $high);
            $g = 10.0 ** ($middle / 20.0);
            $none + $g * ($once + $g * $twice) <= $budget ? $low = $middle : $high = $middle;
        }

        return new Given(0.0, $low);
    }

    /**
     * What lies outside of the band of speech goes down by what the limit leaves for it. Where that is too little, all of it alike may go as far as the limit.
     *
     * @param float $left power, of $power, with the band as far down as it goes first
     */
    private static function bandThenAll(float $allowed, float $beside, float $left, float $power, float $deepest, float $band): Given
    {
        $given = self::all($allowed, $beside, $left, $deepest - $band, $band);

        return $given->enough || $beside >= $allowed ? $given : self::all($allowed, $beside, $power, $deepest, 0.0);
    }

    private static function all(float $allowed, float $beside, float $power, float $deepest, float $band): Given
    {
        $deepest = min(0.0, $deepest);
        if ($beside >= $allowed) {
            $deepest = max($deepest, min(0.0, self::ENOUGH + 10.0 * log10($beside / $power)));
        }
        $dip = $allowed > $beside ? min(0.0, 10.0 * log10(($allowed - $beside) / $power)) : -\INF;

        return $dip < $deepest ? new Given($deepest, $band, false, self::lift($beside + $power * 10.0 ** ($deepest / 10.0), $allowed)) : new Given($dip, $band);
    }

    private static function lift(float $left, float $allowed): float
    {
        return $allowed > 0.0 ? max(0.0, 10.0 * log10($left / $allowed)) : Fix::HIGHEST;
    }
}
