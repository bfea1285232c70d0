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
     * @param array<int, float> $powers weighted mean square of each 100 ms, in order
     * @param array<int, float> $peaks of each 100 ms, full scale is 1
     */
    public static function of(array $powers, array $peaks): self
    {
        $moments = Gating::blocks($powers);
        $stretches = Windows::shortTerm($powers);
        $peak = [] === $peaks ? 0.0 : max($peaks);

        return new self(
            Gating::ofBlocks($moments),
            Gating::range($stretches),
            self::loudest($moments),
            self::loudest($stretches),
            $peak > 0.0 ? 20.0 * log10($peak) : null,
        );
    }

    /** @param list<float> $powers */
    private static function loudest(array $powers): ?float
    {
        $loudest = [] === $powers ? 0.0 : max($powers);

        return $loudest > 1e-12 ? Gating::loudness($loudest) : null;
    }
}
