<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** Leaves a part of the band of speech in a sound that comes in pieces: N(x) + g·(x − N(x)), see {@see SpeechBand}. */
final class BandFilter
{
    /** @var array{Biquad, Biquad} */
    private readonly array $biquads;
    /** @var array{float, float, float, float, float, float, float, float} left and right of the first, then of the second */
    private array $state;

    public function __construct(int $rate)
    {
        $this->biquads = SpeechBand::without($rate);
        $this->forget();
    }

    public function forget(): void
    {
        $this->state = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
    }

    /**
     * Some frames over which the gain goes g ← g·factor + slope; both filters and the sum in one loop, for {@see Cascade} gives the reason.
     *
     * @param array<int, float> $samples interleaved stereo
     * @param int $o place of the first
     *
     * @return array<int, float>
     */
    public function left(array $samples, int $o, int $frames, float $gain, float $factor, float $slope): array
    {
        [$first, $second] = $this->biquads;
        [$b0, $b1, $b2, $a1, $a2] = $first->coefficients();
        [$d0, $d1, $d2, $c1, $c2] = $second->coefficients();
        [$l1, $l2, $r1, $r2, $m1, $m2, $s1, $s2] = $this->state;
        for ($end = $o + 2 * $frames; $o < $end; $o += 2) {
            $x = $samples[$o];
            $y = $b0 * $x + $l1;
            $l1 = $b1 * $x - $a1 * $y + $l2;
            $l2 = $b2 * $x - $a2 * $y;
            $z = $d0 * $y + $m1;
            $m1 = $d1 * $y - $c1 * $z + $m2;
            $m2 = $d2 * $y - $c2 * $z;
            $samples[$o] = $z + $gain * ($x - $z);
            $x = $samples[$o + 1];
            $y = $b0 * $x + $r1;
            $r1 = $b1 * $x - $a1 * $y + $r2;
            $r2 = $b2 * $x - $a2 * $y;
            $z = $d0 * $y + $s1;
            $s1 = $d1 * $y - $c1 * $z + $s2;
            $s2 = $d2 * $y - $c2 * $z;
            $samples[$o + 1] = $z + $gain * ($x - $z);
            $gain = $gain * $factor + $slope;
        }
        $this->state = [$l1, $l2, $r1, $r2, $m1, $m2, $s1, $s2];

        return $samples;
    }
}
