<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * The average level of a recording as people prepare it ("interviews to −20"): K-weighted and gated, so that pauses do not count,
 * and averaged over the channels, so that mono and stereo recordings of the same voice read the same. Own definition, on the
 * weighting and gates of ITU-R BS.1770; a 997 Hz sine reads its own RMS in dBFS.
 */
final class AverageLevel
{
    /** @return ?float dBFS; null where there is nothing but silence */
    public static function of(SourceBlocks $blocks): ?float
    {
        return Gating::integrated(Gating::tenths($blocks->meanPowers()));
    }

    /**
     * @param iterable<SourceBlocks> $minutes in order, each but the last a whole number of 100 ms
     *
     * @return ?float dBFS; null where there is nothing but silence
     */
    public static function ofMinutes(iterable $minutes): ?float
    {
        $tenths = [];
        foreach ($minutes as $minute) {
            array_push($tenths, ...Gating::tenths($minute->meanPowers()));
        }

        return Gating::integrated($tenths);
    }
}
