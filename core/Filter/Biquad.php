<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/**
 * A filter of second order: y = b0·x + b1·x₁ + b2·x₂ − a1·y₁ − a2·y₂. Source of all coefficients: W3C Web Audio API, BiquadFilterNode,
 * "Filters characteristics"; its Q of a high-pass is in decibels, ours is not.
 */
final readonly class Biquad
{
    private function __construct(public float $b0, public float $b1, public float $b2, public float $a1, public float $a2)
    {
    }

    public static function with(float $b0, float $b1, float $b2, float $a1, float $a2): self
    {
        return new self($b0, $b1, $b2, $a1, $a2);
    }

    /**
     * @param float $hertz below half of the rate
     * @param int $rate samples per second
     */
    public static function highPass(float $hertz, float $q, int $rate): self
    {
        [$cosine, $alpha] = self::angle($hertz, $q, $rate);

        return self::over(1.0 + $alpha, [0.5 * (1.0 + $cosine), -1.0 - $cosine, 0.5 * (1.0 + $cosine), -2.0 * $cosine, 1.0 - $alpha]);
    }

    /** A bell around a frequency. */
    public static function peaking(float $hertz, float $q, float $db, int $rate): self
    {
        [$cosine, $alpha] = self::angle($hertz, $q, $rate);
        $a = 10.0 ** ($db / 40.0);

        return self::over(1.0 + $alpha / $a, [1.0 + $alpha * $a, -2.0 * $cosine, 1.0 - $alpha * $a, -2.0 * $cosine, 1.0 - $alpha / $a]);
    }

    /** All below a frequency; the slope is always the steepest that does not overshoot. */
    public static function lowShelf(float $hertz, float $db, int $rate): self
    {
        return self::shelf($hertz, $db, $rate, 1.0);
    }

    /** All above a frequency. */
    public static function highShelf(float $hertz, float $db, int $rate): self
    {
        return self::shelf($hertz, $db, $rate, -1.0);
    }

    /** @return array{float, float} real and imaginary part of what it does to a sine of a frequency */
    public function response(float $hertz, int $rate): array
    {
        $angle = 2.0 * \M_PI * $hertz / $rate;
        [$c1, $s1, $c2, $s2] = [cos($angle), -sin($angle), cos(2.0 * $angle), -sin(2.0 * $angle)];
        [$above, $aboveI] = [$this->b0 + $this->b1 * $c1 + $this->b2 * $c2, $this->b1 * $s1 + $this->b2 * $s2];
        [$below, $belowI] = [1.0 + $this->a1 * $c1 + $this->a2 * $c2, $this->a1 * $s1 + $this->a2 * $s2];
        $power = $below * $below + $belowI * $belowI;

        return [($above * $below + $aboveI * $belowI) / $power, ($aboveI * $below - $above * $belowI) / $power];
    }

    /** @return array{float, float, float, float, float} b0, b1, b2, a1, a2 */
    public function coefficients(): array
    {
        return [$this->b0, $this->b1, $this->b2, $this->a1, $this->a2];
    }

    /** @param float $side 1 for the lower, −1 for the upper shelf */
    private static function shelf(float $hertz, float $db, int $rate, float $side): self
    {
        [$cosine, $alpha] = self::angle($hertz, \M_SQRT1_2, $rate);
        $a = 10.0 ** ($db / 40.0);
        $root = 2.0 * $alpha * sqrt($a);
        $cosine *= $side;

        return self::over(($a + 1.0) + ($a - 1.0) * $cosine + $root, [
            $a * (($a + 1.0) - ($a - 1.0) * $cosine + $root),
            $side * 2.0 * $a * (($a - 1.0) - ($a + 1.0) * $cosine),
            $a * (($a + 1.0) - ($a - 1.0) * $cosine - $root),
            $side * -2.0 * (($a - 1.0) + ($a + 1.0) * $cosine),
            ($a + 1.0) + ($a - 1.0) * $cosine - $root,
        ]);
    }

    /** @return array{float, float} cosine and alpha of the published equations */
    private static function angle(float $hertz, float $q, int $rate): array
    {
        $angle = 2.0 * \M_PI * $hertz / $rate;

        return [cos($angle), sin($angle) / (2.0 * $q)];
    }

    /** @param array{float, float, float, float, float} $all */
    private static function over(float $a0, array $all): self
    {
        return new self(...array_map(static fn (float $one): float => $one / $a0, $all));
    }
}
