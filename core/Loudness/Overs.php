<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * Finds where a sound passes a ceiling, at its samples or between them, by the fourfold oversampling of {@see TruePeak}, from which the
 * ways to pass by what cannot reach it are taken, too.
 *
 * Source: ITU-R BS.1770, Annex 2.
 */
final class Overs
{
    /** Samples that are looked at together. */
    private const CHUNK = 240;

    /** Samples that a value needs before and after the gap it lies in. */
    private const BEFORE = TruePeak::TAPS - 1;

    /** From the newest of the samples that a value needs back to the one before its gap. */
    private const BACK = 6;

    /** @var list<float> interleaved: the frames that the next ones still need */
    private array $tail;

    /** Frames seen so far. */
    private int $seen = 0;

    /**
     * @param int $channels 1 or 2
     * @param float $ceiling full scale is 1
     * @param int $grain frames of which only the highest value is wanted
     */
    public function __construct(private readonly int $channels, private readonly float $ceiling, private readonly int $grain)
    {
        $this->tail = array_fill(0, $channels * self::BEFORE, 0.0);
    }

    /**
     * The next samples, at least twelve frames of them.
     *
     * @param array<int, float> $samples interleaved
     *
     * @return array<int, float> by frame, of all that were pushed: the highest absolute value at it or in the gap after it in each grain, of
     *                           all channels, where it passes the ceiling
     */
    public function push(array $samples): array
    {
        $channels = $this->channels;
        $x = array_merge($this->tail, $samples);
        $over = [];
        for ($from = self::BEFORE, $n = intdiv(\count($x), $channels); $from < $n; $from += self::CHUNK) {
            $some = \array_slice($x, ($from - self::BEFORE) * $channels, (self::BEFORE + self::CHUNK) * $channels);
            $reach = self::highest($some);
            if ($reach * TruePeak::LARGEST_SUM > $this->ceiling) {
                for ($channel = 0; $channel < $channels; ++$channel) {
                    $found = $this->scan($some, $channel, $reach, $this->seen + $from - 2 * self::BEFORE - self::BACK);
                    $over = [] === $found ? $over : self::higher($over, $found);
                }
            }
        }
        $this->tail = \array_slice($x, -self::BEFORE * $channels);
        $this->seen += intdiv(\count($samples), $channels);
        ksort($over);

        return $over;
    }

    /** @param array<int, float> $samples */
    private static function highest(array $samples): float
    {
        return [] === $samples ? 0.0 : max(max($samples), -min($samples));
    }

    /**
     * @param array<int, float> $a
     * @param array<int, float> $b
     *
     * @return array<int, float>
     */
    private static function higher(array $a, array $b): array
    {
        foreach ($b as $frame => $value) {
            $a[$frame] = max($value, $a[$frame] ?? 0.0);
        }

        return $a;
    }

    /**
     * @param list<float> $x eleven frames, and those to look at, interleaved
     * @param int $channel the one that is looked at
     * @param float $reach highest absolute value among them
     * @param int $first frame of the sample before the gap, were the first of them the newest
     *
     * @return array<int, float>
     */
    private function scan(array $x, int $channel, float $reach, int $first): array
    {
        $over = [];
        // Within a grain, what is highest so far is what has to be passed.
        $floor = $this->ceiling;
        $left = 0;
        $best = -1;
        $quiet = $little = 0.0;
        $step = $this->channels;
        [$six, $five] = [6 * $step, 5 * $step];
        for ($frame = self::BEFORE, $i = self::BEFORE * $step + $channel, $n = \count($x); $i < $n; ++$frame, $i += $step) {
            if (0 === $left--) {
                $floor = $this->ceiling;
                $best = -1;
                $quiet = ($floor - TruePeak::TEN_OTHERS * $reach) / TruePeak::TWO;
                $little = $floor - TruePeak::EIGHT_OTHERS * $reach;
                $left = $this->grain - 1 - (($first + $frame) % $this->grain + $this->grain) % $this->grain;
            }
            $b = $x[$i - $six];
            $c = $x[$i - $five];
            if ($b < $quiet && $b > -$quiet && $c < $quiet && $c > -$quiet) {
                continue;
            }
            // Even and odd halves of the phases, as in TruePeak: first of the four samples beside the gap, which nearly always decide.
            $s4 = $x[$i - 7 * $step] + $x[$i - 4 * $step];
            $d4 = $x[$i - 7 * $step] - $x[$i - 4 * $step];
            $even0 = 0.55474853515625 * ($b + $c) - 0.08087158203125 * $s4;
            $odd0 = -0.41741943359375 * ($b - $c) + 0.02142333984375 * $d4;
            $even1 = 0.6224365234375 * ($b + $c) - 0.18341064453125 * $s4;
            $odd1 = -0.1573486328125 * ($b - $c) + 0.01690673828125 * $d4;
            $own = $b < 0.0 ? -$b : $b;
            if ($own <= $floor && ($even0 < 0.0 ? -$even0 : $even0) + ($odd0 < 0.0 ? -$odd0 : $odd0) <= $little && ($even1 < 0.0 ? -$even1 : $even1) + ($odd1 < 0.0 ? -$odd1 : $odd1) <= $little) {
                continue;
            }
            $s3 = $x[$i - 8 * $step] + $x[$i - 3 * $step];
            $d3 = $x[$i - 8 * $step] - $x[$i - 3 * $step];
            $s2 = $x[$i - 9 * $step] + $x[$i - 2 * $step];
            $d2 = $x[$i - 9 * $step] - $x[$i - 2 * $step];
            $s1 = $x[$i - 10 * $step] + $x[$i - $step];
            $d1 = $x[$i - 10 * $step] - $x[$i - $step];
            $s0 = $x[$i - 11 * $step] + $x[$i];
            $d0 = $x[$i - 11 * $step] - $x[$i];
            $even0 += 0.04040527343750 * $s3 - 0.02313232421875 * $s2 + 0.01293945312500 * $s1 - 0.00329589843750 * $s0;
            $odd0 += -0.00720214843750 * $d3 + 0.00347900390625 * $d2 - 0.00195312500000 * $d1 + 0.00500488281250 * $d0;
            $even1 += 0.09533691406250 * $s3 - 0.05499267578125 * $s2 + 0.03118896484375 * $s1 - 0.02404785156250 * $s0;
            $odd1 += -0.00622558593750 * $d3 + 0.00323486328125 * $d2 - 0.00189208984375 * $d1 - 0.00512695312500 * $d0;
            $value = max($own, ($even0 < 0.0 ? -$even0 : $even0) + ($odd0 < 0.0 ? -$odd0 : $odd0), ($even1 < 0.0 ? -$even1 : $even1) + ($odd1 < 0.0 ? -$odd1 : $odd1));
            if ($value > $floor) {
                unset($over[$best]);
                $best = $first + $frame;
                $over[$best] = $floor = $value;
                $quiet = ($floor - TruePeak::TEN_OTHERS * $reach) / TruePeak::TWO;
                $little = $floor - TruePeak::EIGHT_OTHERS * $reach;
            }
        }

        return $over;
    }
}
