<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * Loudness values of any number of moments in little memory: how many lie in each hundredth of a LU above the absolute gate, and
 * how much power they have together. Means of what passes a gate are exact but for the hundredth that the gate falls into.
 *
 * Sources: ITU-R BS.1770, Annex 1 (gates of integrated loudness); EBU Tech 3342 (loudness range: relative gate 20 LU below the
 * mean, from the 10th to the 95th percentile).
 */
final class LoudnessHistogram
{
    private const STEPS_PER_LU = 100;
    /** Far below the gate: nothing to be worked out. */
    private const SILENT = 1e-9;
    private const INTEGRATED_GATE = -10.0;
    private const RANGE_GATE = -20.0;
    private const LOW_PERCENTILE = 0.10;
    private const HIGH_PERCENTILE = 0.95;

    /** @var array<int, int> by hundredth of a LU above the gate */
    private array $counts = [];

    /** @var array<int, float> */
    private array $powers = [];

    /** @param float $power weighted mean square of one moment */
    public function add(float $power): void
    {
        if ($power < self::SILENT) {
            return;
        }
        $loudness = Gating::loudness($power);
        if ($loudness > Gating::ABSOLUTE_GATE) {
            $step = (int) (($loudness - Gating::ABSOLUTE_GATE) * self::STEPS_PER_LU);
            $this->counts[$step] = ($this->counts[$step] ?? 0) + 1;
            $this->powers[$step] = ($this->powers[$step] ?? 0.0) + $power;
        }
    }

    /** @param list<float> $powers weighted mean squares of moments */
    public function addAll(array $powers): void
    {
        foreach ($powers as $power) {
            $this->add($power);
        }
    }

    /** Of moments of 400 ms. @return ?float LUFS; null where nothing passes the gates */
    public function integrated(): ?float
    {
        return $this->meanAbove($this->relativeGate(self::INTEGRATED_GATE));
    }

    /** Of moments of 3 s. @return float LU */
    public function range(): float
    {
        $gate = $this->relativeGate(self::RANGE_GATE);
        $steps = array_filter($this->counts, static fn (int $step): bool => $step >= $gate, \ARRAY_FILTER_USE_KEY);
        ksort($steps);
        $count = array_sum($steps);

        return 0 === $count ? 0.0 : self::percentile($steps, $count, self::HIGH_PERCENTILE) - self::percentile($steps, $count, self::LOW_PERCENTILE);
    }

    /** @return int first step that passes */
    private function relativeGate(float $below): int
    {
        $mean = $this->meanAbove(0);

        return null === $mean ? 0 : max(0, (int) round(($mean + $below - Gating::ABSOLUTE_GATE) * self::STEPS_PER_LU));
    }

    private function meanAbove(int $gate): ?float
    {
        $count = 0;
        $power = 0.0;
        foreach ($this->counts as $step => $here) {
            if ($step >= $gate) {
                $count += $here;
                $power += $this->powers[$step];
            }
        }

        return 0 === $count ? null : Gating::loudness($power / $count);
    }

    /** @param array<int, int> $steps in rising order. @return float LU above the absolute gate */
    private static function percentile(array $steps, int $count, float $part): float
    {
        $wanted = (int) round($part * ($count - 1));
        foreach ($steps as $step => $here) {
            $wanted -= $here;
            if ($wanted < 0) {
                return ($step + 0.5) / self::STEPS_PER_LU;
            }
        }

        return 0.0;
    }
}
