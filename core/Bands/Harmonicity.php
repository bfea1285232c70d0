<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

/**
 * How much a short spectrum looks like a voiced sound: for the pitch that fits best, what stands on its harmonics against what stands between them.
 * Own definition. The spectrum is flattened first, so that neither a hum nor the colour of a microphone decides.
 */
final class Harmonicity
{
    /** Pitches of children and adults, Hz, and how many are tried in an octave. */
    private const LOWEST = 70.0;
    private const HIGHEST = 420.0;
    private const IN_AN_OCTAVE = 24;
    private const HARMONICS = 8;
    /** Bins to each side that a spectrum is flattened over. */
    private const AROUND = 8;

    /** @var list<list<int>> of each pitch: bins of harmonics, each followed by the bin half a pitch below it */
    private array $combs = [];

    /**
     * @param float $width Hz between bins
     * @param int $last bin
     */
    public function __construct(float $width, private readonly int $last)
    {
        for ($pitch = self::LOWEST; $pitch <= self::HIGHEST; $pitch *= 2.0 ** (1 / self::IN_AN_OCTAVE)) {
            $comb = [];
            for ($h = 1; $h <= self::HARMONICS && $h * $pitch / $width <= $last; ++$h) {
                $comb[] = (int) round($h * $pitch / $width);
                $comb[] = max(1, (int) round(($h - 0.5) * $pitch / $width));
            }
            $this->combs[] = $comb;
        }
    }

    /**
     * @param array<int, float> $spectrum power by bin, from 1 on
     *
     * @return float 0 … 1
     */
    public function of(array $spectrum): float
    {
        $flat = $this->flat($spectrum);
        $best = 0.0;
        foreach ($this->combs as $comb) {
            $on = $between = 0.0;
            for ($i = 0, $n = \count($comb); $i < $n; $i += 2) {
                $on += $flat[$comb[$i]];
                $between += $flat[$comb[$i + 1]];
            }
            if ($on - $between > $best * ($on + $between)) {
                $best = ($on - $between) / ($on + $between);
            }
        }

        return $best;
    }

    /**
     * @param array<int, float> $spectrum
     *
     * @return array<int, float> amplitude against the average around each bin
     */
    private function flat(array $spectrum): array
    {
        $sums = [0.0];
        $amplitudes = [];
        for ($k = 1; $k <= $this->last; ++$k) {
            $amplitudes[$k] = sqrt($spectrum[$k]);
            $sums[$k] = $sums[$k - 1] + $amplitudes[$k];
        }
        $flat = [];
        for ($k = 1; $k <= $this->last; ++$k) {
            $from = $k > self::AROUND ? $k - self::AROUND - 1 : 0;
            $to = $k + self::AROUND < $this->last ? $k + self::AROUND : $this->last;
            $mean = ($sums[$to] - $sums[$from]) / ($to - $from);
            $flat[$k] = $mean > 0.0 ? $amplitudes[$k] / $mean : 0.0;
        }

        return $flat;
    }
}
