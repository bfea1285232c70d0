<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * The highest value that a sound reaches between its samples, by fourfold oversampling: 48 taps in four phases. Never below the
 * highest sample, which the phases miss by a little.
 *
 * Source: ITU-R BS.1770, Annex 2; the coefficients are its table, recalled from memory (each is a whole number of 1/8192).
 *
 * Nearly all of the work is to find out where there is nothing to do, and none of it changes the result. A value between samples
 * cannot pass the highest found so far
 *  - where the loudest sample of a stretch times the largest sum of coefficients does not;
 *  - where the two samples beside it are small: what the other ten can add is known;
 *  - where the sound is smooth: what lies between two samples of it is near to them, as near as its curvature says;
 *  - where the four samples beside it, weighted, leave less than the other eight can add.
 * The phases mirror one another, so that sums and differences of samples serve two of them at once.
 */
final class TruePeak
{
    public const UNIT = 8192.0;
    public const TAPS = 12;

    /** Samples that a value needs before and after the gap it lies in. */
    private const BEFORE = self::TAPS - 1;

    /** Largest sum of absolute coefficients: phase 1. */
    public const LARGEST_SUM = 16571 / self::UNIT;

    /** How much the ten samples other than the two beside the gap can add, and how much those two weigh. */
    public const TEN_OTHERS = 6373 / self::UNIT;
    public const TWO = 10198 / self::UNIT;

    /** How much the eight samples other than the four beside it can add, at most: phase 1. */
    public const EIGHT_OTHERS = 3368 / self::UNIT;

    /** For a smooth sound: weight of the louder of the two beside the gap, and of the largest second difference. */
    private const SMOOTH = 8205 / self::UNIT;
    private const CURVED = 3.0;

    private float $highest = 0.0;

    /** @var array<int, array<int, float|int>> by channel: the samples that the next ones still need */
    private array $tails;

    /** @var array<int, float|int> by channel: highest absolute value among the samples last seen, the tail with them */
    private array $recent;

    public function __construct(private readonly int $channels)
    {
        $this->tails = array_fill(0, $channels, array_fill(0, self::BEFORE, 0));
        $this->recent = array_fill(0, $channels, 0);
    }

    /** Highest absolute value so far, in the unit of the samples. */
    public function highest(): float
    {
        return $this->highest;
    }

    /** What was found so far does not count. */
    public function forget(): void
    {
        $this->highest = 0.0;
    }

    /**
     * Whether the next samples of a channel may hold something higher than what was found, so that they must be pushed; else it
     * is enough to pass them by.
     *
     * @param int|float $loudest highest absolute value among them
     */
    public function mayRise(int $channel, int|float $loudest): bool
    {
        return max($loudest, $this->recent[$channel]) * self::LARGEST_SUM > $this->highest;
    }

    /**
     * The next samples of one channel.
     *
     * @param array<int, float|int> $samples in their order
     * @param int|float $loudest highest absolute value among them
     */
    public function push(int $channel, array $samples, int|float $loudest): void
    {
        $this->highest = max($this->highest, (float) $loudest);
        $row = [...$this->tails[$channel], ...$samples];
        if ($this->mayRise($channel, $loudest)) {
            $this->highest = self::scan($row, (float) max($loudest, $this->recent[$channel]), $this->highest);
        }
        $this->pass($channel, $row, $loudest);
    }

    /**
     * Goes past samples that need no looking at.
     *
     * @param array<int, float|int> $samples in their order, at least the last eleven of them
     */
    public function pass(int $channel, array $samples, int|float $loudest): void
    {
        $this->tails[$channel] = \array_slice($samples, -self::BEFORE);
        $this->recent[$channel] = $loudest;
    }

    /** The sound rings on after its end. */
    public function finish(): void
    {
        for ($channel = 0; $channel < $this->channels; ++$channel) {
            $this->push($channel, array_fill(0, self::BEFORE, 0), 0);
        }
    }

    /**
     * @param list<float|int> $x eleven samples, and those to look at
     *
     * @return float the highest value, at least $highest
     */
    private static function scan(array $x, float $reach, float $highest): float
    {
        $n = \count($x);
        $quiet = self::quietBelow($x, $reach, $highest);
        $little = $highest - self::EIGHT_OTHERS * $reach;
        for ($i = self::BEFORE; $i < $n; ++$i) {
            $b = $x[$i - 6];
            $c = $x[$i - 5];
            if ($b < $quiet && $b > -$quiet && $c < $quiet && $c > -$quiet) {
                continue;
            }
            $s5 = $b + $c;
            $d5 = $b - $c;
            $p = $x[$i - 7];
            $q = $x[$i - 4];
            $s4 = $p + $q;
            $d4 = $p - $q;
            // Even and odd halves of the phases: (c[k] + c[11 − k]) / 2 and (c[k] − c[11 − k]) / 2, over 8192.
            $even0 = 0.55474853515625 * $s5 - 0.08087158203125 * $s4;
            $odd0 = -0.41741943359375 * $d5 + 0.02142333984375 * $d4;
            $even1 = 0.6224365234375 * $s5 - 0.18341064453125 * $s4;
            $odd1 = -0.1573486328125 * $d5 + 0.01690673828125 * $d4;
            // Written out, here and below, since a call of abs() costs more than all the rest of it.
            if (($even0 < 0.0 ? -$even0 : $even0) + ($odd0 < 0.0 ? -$odd0 : $odd0) <= $little && ($even1 < 0.0 ? -$even1 : $even1) + ($odd1 < 0.0 ? -$odd1 : $odd1) <= $little) {
                continue;
            }
            $p = $x[$i - 8];
            $q = $x[$i - 3];
            $s3 = $p + $q;
            $d3 = $p - $q;
            $p = $x[$i - 9];
            $q = $x[$i - 2];
            $s2 = $p + $q;
            $d2 = $p - $q;
            $p = $x[$i - 10];
            $q = $x[$i - 1];
            $s1 = $p + $q;
            $d1 = $p - $q;
            $p = $x[$i - 11];
            $q = $x[$i];
            $s0 = $p + $q;
            $d0 = $p - $q;
            $even0 += 0.04040527343750 * $s3 - 0.02313232421875 * $s2 + 0.01293945312500 * $s1 - 0.00329589843750 * $s0;
            $odd0 += -0.00720214843750 * $d3 + 0.00347900390625 * $d2 - 0.00195312500000 * $d1 + 0.00500488281250 * $d0;
            $even1 += 0.09533691406250 * $s3 - 0.05499267578125 * $s2 + 0.03118896484375 * $s1 - 0.02404785156250 * $s0;
            $odd1 += -0.00622558593750 * $d3 + 0.00323486328125 * $d2 - 0.00189208984375 * $d1 - 0.00512695312500 * $d0;
            $value = ($even0 < 0.0 ? -$even0 : $even0) + ($odd0 < 0.0 ? -$odd0 : $odd0);
            $other = ($even1 < 0.0 ? -$even1 : $even1) + ($odd1 < 0.0 ? -$odd1 : $odd1);
            $value = $other > $value ? $other : $value;
            if ($value > $highest) {
                $highest = $value;
                $little = $highest - self::EIGHT_OTHERS * $reach;
            }
        }

        return $highest;
    }

    /**
     * Where both samples beside a gap are below this, nothing in it can pass what was found.
     *
     * @param list<float|int> $x
     */
    private static function quietBelow(array $x, float $reach, float $highest): float
    {
        $quiet = ($highest - self::TEN_OTHERS * $reach) / self::TWO;
        $n = \count($x);
        // Smooth sounds allow for more; whether this one is smooth is tried on a few samples first.
        $curved = 0;
        foreach ([16, 1] as $step) {
            for ($i = 1; $i < $n - 1; $i += $step) {
                $second = $x[$i - 1] - 2 * $x[$i] + $x[$i + 1];
                if ($second > $curved) {
                    $curved = $second;
                } elseif ($second < -$curved) {
                    $curved = -$second;
                }
            }
            if (($highest - self::CURVED * $curved) / self::SMOOTH <= $quiet) {
                return $quiet;
            }
        }

        return ($highest - self::CURVED * $curved) / self::SMOOTH;
    }
}
