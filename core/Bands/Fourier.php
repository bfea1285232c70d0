<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

/**
 * Power spectra of two real signals at once, by one complex fast Fourier transform: decimation in frequency, in steps of four, with one of two where the
 * length asks for it. Results stay in the order that this leaves them in and are looked up by a table, which is cheaper than sorting them.
 */
final class Fourier
{
    /** @var list<float> */
    private array $cos = [];
    /** @var list<float> */
    private array $sin = [];
    /** @var array<int, int> where the bin of a number stands */
    private array $place = [];

    /** @param int $length a power of two, 4 or more */
    public function __construct(public readonly int $length)
    {
        for ($i = 0; $i < $length; ++$i) {
            $this->cos[] = cos(2.0 * \M_PI * $i / $length);
            $this->sin[] = -sin(2.0 * \M_PI * $i / $length);
        }
        for ($i = 0; $i < $length; ++$i) {
            $bin = 0;
            $of = $i;
            for ($size = $length, $scale = 1; $size > 1;) {
                $ways = $size >= 4 ? 4 : 2;
                $size = intdiv($size, $ways);
                $bin += $scale * intdiv($of, $size);
                $of %= $size;
                $scale *= $ways;
            }
            $this->place[$bin] = $i;
        }
    }

    /**
     * @param array<int, float|int> $one as many samples as the length
     * @param array<int, float|int> $two likewise
     * @param int $from first bin wanted, 1 or more
     * @param int $to last bin wanted, less than half the length
     *
     * @return array{array<int, float>, array<int, float>} power of each signal, by bin
     */
    public function powers(array $one, array $two, int $from, int $to): array
    {
        [$re, $im] = $this->transformed($one, $two);
        $first = $second = [];
        $n = $this->length;
        $place = $this->place;
        for ($k = $from; $k <= $to; ++$k) {
            $a = $place[$k];
            $b = $place[$n - $k];
            $p = $re[$a] + $re[$b];
            $q = $im[$a] - $im[$b];
            $first[$k] = 0.25 * ($p * $p + $q * $q);
            $p = $re[$a] - $re[$b];
            $q = $im[$a] + $im[$b];
            $second[$k] = 0.25 * ($p * $p + $q * $q);
        }

        return [$first, $second];
    }

    /**
     * @param array<int, float|int> $re
     * @param array<int, float|int> $im
     *
     * @return array{array<int, float|int>, array<int, float|int>} in the order of {@see $place}
     */
    private function transformed(array $re, array $im): array
    {
        $n = $this->length;
        [$cos, $sin] = [$this->cos, $this->sin];
        for ($size = $n, $step = 1; $size >= 4; $size >>= 2, $step <<= 2) {
            $quarter = $size >> 2;
            for ($j = 0; $j < $quarter; ++$j) {
                $w = $j * $step;
                [$c1, $s1, $c2, $s2, $c3, $s3] = [$cos[$w], $sin[$w], $cos[2 * $w], $sin[2 * $w], $cos[3 * $w], $sin[3 * $w]];
                for ($a = $j; $a < $n; $a += $size) {
                    $b = $a + $quarter;
                    $c = $b + $quarter;
                    $d = $c + $quarter;
                    $sumRe = $re[$a] + $re[$c];
                    $sumIm = $im[$a] + $im[$c];
                    $lessRe = $re[$a] - $re[$c];
                    $lessIm = $im[$a] - $im[$c];
                    $otherRe = $re[$b] + $re[$d];
                    $otherIm = $im[$b] + $im[$d];
                    $turnRe = $im[$b] - $im[$d];
                    $turnIm = $re[$d] - $re[$b];
                    $re[$a] = $sumRe + $otherRe;
                    $im[$a] = $sumIm + $otherIm;
                    $x = $lessRe + $turnRe;
                    $y = $lessIm + $turnIm;
                    $re[$b] = $x * $c1 - $y * $s1;
                    $im[$b] = $x * $s1 + $y * $c1;
                    $x = $sumRe - $otherRe;
                    $y = $sumIm - $otherIm;
                    $re[$c] = $x * $c2 - $y * $s2;
                    $im[$c] = $x * $s2 + $y * $c2;
                    $x = $lessRe - $turnRe;
                    $y = $lessIm - $turnIm;
                    $re[$d] = $x * $c3 - $y * $s3;
                    $im[$d] = $x * $s3 + $y * $c3;
                }
            }
        }
        for ($a = 0; 2 === $size && $a < $n; $a += 2) {
            $x = $re[$a + 1];
            $y = $im[$a + 1];
            $re[$a + 1] = $re[$a] - $x;
            $im[$a + 1] = $im[$a] - $y;
            $re[$a] += $x;
            $im[$a] += $y;
        }

        return [$re, $im];
    }
}
