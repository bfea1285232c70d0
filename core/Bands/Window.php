<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

use Closure;

/** What lies in some third-octave bands in one short window of two signals. */
final class Window
{
    private readonly Fourier $fourier;
    /** @var list<float> Hann */
    private array $shape = [];
    /** @var array<int, array<int, float>> by band and bin: what of a bin's power belongs to the band, so that the sum is a mean square */
    private array $parts = [];
    private int $last = 0;

    /**
     * @param int $length samples of a window, a power of two
     * @param float $rate samples per second
     * @param int $from first band
     * @param int $to last band
     * @param Closure(float): float $response what has become of a sine's amplitude at so many Hz on the way here
     */
    public function __construct(int $length, float $rate, int $from, int $to, Closure $response)
    {
        $this->fourier = new Fourier($length);
        $squares = 0.0;
        for ($i = 0; $i < $length; ++$i) {
            $this->shape[] = 0.5 - 0.5 * cos(2.0 * \M_PI * ($i + 0.5) / $length);
            $squares += $this->shape[$i] ** 2;
        }
        $width = $rate / $length;
        for ($band = $from; $band <= $to; ++$band) {
            [$low, $high] = [ThirdOctaves::edge($band) / $width, ThirdOctaves::edge($band + 1) / $width];
            for ($k = (int) round($low); $k <= (int) round($high); ++$k) {
                $part = min($high, $k + 0.5) - max($low, $k - 0.5);
                if ($part > 0.0) {
                    // Bins of negative frequencies have as much again.
                    $this->parts[$band][$k] = 2.0 * $part / ($length * $squares * $response($k * $width) ** 2);
                    $this->last = max($this->last, $k);
                }
            }
        }
    }

    /** @return int the highest bin that a band needs */
    public function last(): int
    {
        return $this->last;
    }

    /**
     * @param array<int, float|int> $one as many samples as a window has
     * @param array<int, float|int> $two likewise
     *
     * @return array{array<int, float>, array<int, float>} power of each, by bin: from 1 to {@see last()}
     */
    public function spectra(array $one, array $two): array
    {
        $shape = $this->shape;
        foreach ($shape as $i => $factor) {
            $one[$i] *= $factor;
            $two[$i] *= $factor;
        }

        return $this->fourier->powers($one, $two, 1, $this->last);
    }

    /**
     * @param array<int, float> $spectrum power by bin
     *
     * @return array<int, float> mean square, by band
     */
    public function bands(array $spectrum): array
    {
        $powers = [];
        foreach ($this->parts as $band => $parts) {
            $sum = 0.0;
            foreach ($parts as $k => $part) {
                $sum += $part * $spectrum[$k];
            }
            $powers[$band] = $sum;
        }

        return $powers;
    }
}
