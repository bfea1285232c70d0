<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/**
 * Takes the band that speech is understood by out of a sound, about 400 Hz to 5 kHz: N. What it takes is B = 1 − N, and a track that makes room by band sounds
 * as x − (1 − g)·B(x) = N(x) + g·(x − N(x)). Two bells of W3C's equations that only lower; so |N| ≤ 1, and nothing beside the band is ever lifted, which a
 * high-pass and a low-pass with their shifts of phase would do. Places, widths and depth were looked for by hand: of all pairs those that come closest to
 * the dip that is asked for within the band at −6 and −12 dB, and to nothing at 160 Hz and 10 kHz.
 */
final class SpeechBand
{
    /** Hz of the two. */
    private const HERTZ = [900.0, 2250.0];
    private const Q = 1.2;
    private const DB = -24.0;

    /**
     * What becomes of the power of a sine when the band is left at a gain g: |N + g·B|² = none + once·g + twice·g².
     *
     * @return array{float, float, float} none, once, twice
     */
    public static function shares(float $hertz, int $rate): array
    {
        [$re, $im] = Response::of(self::without($rate), $hertz, $rate);

        return [$re * $re + $im * $im, 2.0 * ($re * (1.0 - $re) - $im * $im), (1.0 - $re) ** 2 + $im * $im];
    }

    /** @return array{Recipe, Recipe} of N, one after the other */
    public static function recipes(): array
    {
        return [Recipe::bell(self::HERTZ[0], self::Q, self::DB), Recipe::bell(self::HERTZ[1], self::Q, self::DB)];
    }

    /** @return array{Biquad, Biquad} N, one after the other */
    public static function without(int $rate): array
    {
        [$first, $second] = self::recipes();

        return [$first->biquad($rate), $second->biquad($rate)];
    }
}
