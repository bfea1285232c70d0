<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** What filters one after the other do to a sine. */
final class Response
{
    /**
     * @param list<Biquad> $biquads
     *
     * @return array{float, float} real and imaginary part
     */
    public static function of(array $biquads, float $hertz, int $rate): array
    {
        [$re, $im] = [1.0, 0.0];
        foreach ($biquads as $biquad) {
            [$r, $i] = $biquad->response($hertz, $rate);
            [$re, $im] = [$re * $r - $im * $i, $re * $i + $im * $r];
        }

        return [$re, $im];
    }

    /**
     * @param list<Biquad> $biquads
     *
     * @return float gain of power
     */
    public static function power(array $biquads, float $hertz, int $rate): float
    {
        [$re, $im] = self::of($biquads, $hertz, $rate);

        return $re * $re + $im * $im;
    }
}
