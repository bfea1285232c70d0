<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

/**
 * One channel at an eighth of its rate, from running sums of its running sums: their second differences are a triangle over 15 samples, whose zeros lie where
 * sound would fold back. So a loop that goes over all samples anyway adds twice, and nothing else. The sums begin anew with each block, which keeps them small; a second
 * difference does not see that once those before are put on the new footing.
 */
final class Lows
{
    private int $beforeLast = 0;
    private int $last = 0;

    /**
     * @param list<int> $sums running sums of running sums, after every {@see BandMeter::LOW_STEP} samples of a block
     * @param int $sum of all its samples; of the last block only as many as are whole steps
     *
     * @return list<int> 64 times the sound
     */
    public function of(array $sums, int $sum): array
    {
        $lows = [];
        [$before, $last] = [$this->beforeLast, $this->last];
        foreach ($sums as $next) {
            $lows[] = $next - 2 * $last + $before;
            $before = $last;
            $last = $next;
        }
        // Seen from the end of this block the sum of sums is 0 there, and was so much less than a straight line before it.
        $this->beforeLast = $before - $last + BandMeter::LOW_STEP * $sum;
        $this->last = 0;

        return $lows;
    }

    /**
     * The same from the samples themselves; what is no whole step at the end is left out.
     *
     * @param array<int, int> $samples interleaved
     * @param int $from index of this channel's first sample
     *
     * @return list<int>
     */
    public function ofSamples(array $samples, int $from, int $stride): array
    {
        $sum = $sumOfSums = 0;
        $sums = [];
        $n = \count($samples);
        for ($i = $from, $step = BandMeter::LOW_STEP * $stride; $i + $step - $stride < $n; $i += $step) {
            $b = $i + $stride;
            $c = $b + $stride;
            $d = $c + $stride;
            $e = $d + $stride;
            $f = $e + $stride;
            $g = $f + $stride;
            $h = $g + $stride;
            // What eight steps add to both sums.
            $sumOfSums += 8 * ($sum + $samples[$i]) + 7 * $samples[$b] + 6 * $samples[$c] + 5 * $samples[$d] + 4 * $samples[$e] + 3 * $samples[$f] + 2 * $samples[$g] + $samples[$h];
            $sum += $samples[$i] + $samples[$b] + $samples[$c] + $samples[$d] + $samples[$e] + $samples[$f] + $samples[$g] + $samples[$h];
            $sums[] = $sumOfSums;
        }

        return $this->of($sums, $sum);
    }
}
