<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Response;

/**
 * The two filters before loudness is measured: a shelf for the head and a high-pass. ITU-R BS.1770, tables 1 and 2.
 *
 * At 48 kHz the coefficients are those published. At other rates the same analogue prototypes are transformed anew;
 * their parameters below are not in the Recommendation: they are recalled from the literature on its implementations, and a
 * test shows that at 48 kHz they give the published tables.
 */
final readonly class KWeighting
{
    private const SHELF_HZ = 1681.974450955533;
    private const SHELF_DB = 3.999843853973347;
    private const SHELF_Q = 0.7071752369554196;
    private const HIGH_PASS_HZ = 38.13547087602444;
    private const HIGH_PASS_Q = 0.5003270373238773;

    /**
     * @param array{float, float, float, float, float} $shelf b0, b1, b2, a1, a2
     * @param array{float, float} $highPass a1, a2; its b are 1, −2, 1
     */
    private function __construct(public array $shelf, public array $highPass)
    {
    }

    /** @param int $rate samples per second */
    public static function atRate(int $rate): self
    {
        return 48_000 === $rate
            ? new self([1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241, 0.73248077421585], [-1.99004745483398, 0.99007225036621])
            : self::transformed($rate);
    }

    /** @return float by what it multiplies the power of a sine */
    public function power(float $hertz, int $rate): float
    {
        return Response::power([Biquad::with(...$this->shelf), Biquad::with(1.0, -2.0, 1.0, ...$this->highPass)], $hertz, $rate);
    }

    /** The prototypes at any rate, by the bilinear transform. */
    public static function transformed(int $rate): self
    {
        $k = tan(\M_PI * self::SHELF_HZ / $rate);
        $high = 10.0 ** (self::SHELF_DB / 20.0);
        $band = $high ** 0.4996667741545416;
        $a0 = 1.0 + $k / self::SHELF_Q + $k * $k;
        $shelf = [
            ($high + $band * $k / self::SHELF_Q + $k * $k) / $a0,
            2.0 * ($k * $k - $high) / $a0,
            ($high - $band * $k / self::SHELF_Q + $k * $k) / $a0,
            2.0 * ($k * $k - 1.0) / $a0,
            (1.0 - $k / self::SHELF_Q + $k * $k) / $a0,
        ];
        $k = tan(\M_PI * self::HIGH_PASS_HZ / $rate);
        $a0 = 1.0 + $k / self::HIGH_PASS_Q + $k * $k;

        return new self($shelf, [2.0 * ($k * $k - 1.0) / $a0, (1.0 - $k / self::HIGH_PASS_Q + $k * $k) / $a0]);
    }
}
