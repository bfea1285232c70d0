<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** What a programme, a stem or a track will measure at, worked out without rendering it. */
final readonly class Predicted
{
    /**
     * @param ?float $integrated LUFS; null for silence
     * @param float $range LU
     * @param ?float $maxMomentary LUFS; null likewise
     * @param ?float $maxShortTerm LUFS; null likewise, or for less than 3 s
     * @param ?float $peak dBFS that no sample passes; null likewise
     */
    private function __construct(public ?float $integrated, public float $range, public ?float $maxMomentary, public ?float $maxShortTerm, public ?float $peak)
    {
    }

    /**
     * @param Series $powers weighted mean square of each 100 ms, in order
     * @param float $peak that no sample passes, full scale is 1
     */
    public static function of(Series $powers, float $peak): self
    {
        [$moments, $maxMomentary] = self::histogram($powers, Windows::MOMENTARY);
        [$stretches, $maxShortTerm] = self::histogram($powers, Windows::SHORT_TERM);

        return new self($moments->integrated(), $stretches->range(), $maxMomentary, $maxShortTerm, $peak > 0.0 ? 20.0 * log10($peak) : null);
    }

    /** @return array{LoudnessHistogram, ?float} of all windows of a length, and the loudest of them in LUFS */
    private static function histogram(Series $powers, int $length): array
    {
        $histogram = new LoudnessHistogram();
        $loudest = 0.0;
        $count = \count($powers);
        // Less than 400 ms is one moment.
        $windows = $count > 0 && $count < $length && Windows::MOMENTARY === $length ? [[array_sum($powers->values()) / $count]] : Windows::along($powers, $length);
        foreach ($windows as $some) {
            $histogram->addAll($some);
            $loudest = max($loudest, ...$some);
        }

        return [$histogram, $loudest > 1e-12 ? Gating::loudness($loudest) : null];
    }
}
