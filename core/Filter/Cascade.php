<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** Filters one after the other on a sound that comes in pieces, and what they remember from one piece to the next. */
final class Cascade
{
    /** Softer than this, what is left ringing is silence. */
    private const SILENCE = 1e-12;

    /** @var list<array{float, float, float, float}> two for each channel, by filter */
    private array $states;

    /** @param list<Biquad> $biquads */
    public function __construct(private readonly array $biquads)
    {
        $this->forget();
    }

    public function forget(): void
    {
        $this->states = array_fill(0, \count($this->biquads), [0.0, 0.0, 0.0, 0.0]);
    }

    /** Whether something is still ringing. */
    public function rings(): bool
    {
        foreach ($this->states as $state) {
            if (max(array_map(abs(...), $state)) > self::SILENCE) {
                return true;
            }
        }

        return false;
    }

    /**
     * Two filters at a time: reading and writing the array is most of the work.
     *
     * @param array<int, int|float> $samples interleaved stereo
     * @param float $scale what they are multiplied by first
     *
     * @return array<int, float>
     */
    public function stereo(array $samples, float $scale = 1.0): array
    {
        $last = \count($this->biquads);
        for ($i = 0; $i + 1 < $last; $i += 2) {
            [$b0, $b1, $b2, $a1, $a2] = $this->biquads[$i]->coefficients();
            [$b0, $b1, $b2] = [$b0 * $scale, $b1 * $scale, $b2 * $scale];
            [$d0, $d1, $d2, $c1, $c2] = $this->biquads[$i + 1]->coefficients();
            [$l1, $l2, $r1, $r2] = $this->states[$i];
            [$m1, $m2, $s1, $s2] = $this->states[$i + 1];
            for ($o = 0, $n = \count($samples); $o < $n; $o += 2) {
                $x = $samples[$o];
                $y = $b0 * $x + $l1;
                $l1 = $b1 * $x - $a1 * $y + $l2;
                $l2 = $b2 * $x - $a2 * $y;
                $z = $d0 * $y + $m1;
                $m1 = $d1 * $y - $c1 * $z + $m2;
                $m2 = $d2 * $y - $c2 * $z;
                $samples[$o] = $z;
                $x = $samples[$o + 1];
                $y = $b0 * $x + $r1;
                $r1 = $b1 * $x - $a1 * $y + $r2;
                $r2 = $b2 * $x - $a2 * $y;
                $z = $d0 * $y + $s1;
                $s1 = $d1 * $y - $c1 * $z + $s2;
                $s2 = $d2 * $y - $c2 * $z;
                $samples[$o + 1] = $z;
            }
            $this->states[$i] = [$l1, $l2, $r1, $r2];
            $this->states[$i + 1] = [$m1, $m2, $s1, $s2];
            $scale = 1.0;
        }
        if ($i < $last) {
            [$b0, $b1, $b2, $a1, $a2] = $this->biquads[$i]->coefficients();
            [$b0, $b1, $b2] = [$b0 * $scale, $b1 * $scale, $b2 * $scale];
            [$l1, $l2, $r1, $r2] = $this->states[$i];
            for ($o = 0, $n = \count($samples); $o < $n; $o += 2) {
                $x = $samples[$o];
                $y = $b0 * $x + $l1;
                $l1 = $b1 * $x - $a1 * $y + $l2;
                $l2 = $b2 * $x - $a2 * $y;
                $samples[$o] = $y;
                $x = $samples[$o + 1];
                $y = $b0 * $x + $r1;
                $r1 = $b1 * $x - $a1 * $y + $r2;
                $r2 = $b2 * $x - $a2 * $y;
                $samples[$o + 1] = $y;
            }
            $this->states[$i] = [$l1, $l2, $r1, $r2];
        }

        return $samples;
    }

    /**
     * @param array<int, int|float> $samples of one channel
     * @param float $scale what they are multiplied by first
     *
     * @return array<int, float>
     */
    public function mono(array $samples, float $scale = 1.0): array
    {
        foreach ($this->biquads as $i => $biquad) {
            [$b0, $b1, $b2, $a1, $a2] = $biquad->coefficients();
            [$b0, $b1, $b2] = [$b0 * $scale, $b1 * $scale, $b2 * $scale];
            [$s1, $s2] = $this->states[$i];
            for ($o = 0, $n = \count($samples); $o < $n; ++$o) {
                $x = $samples[$o];
                $y = $b0 * $x + $s1;
                $s1 = $b1 * $x - $a1 * $y + $s2;
                $s2 = $b2 * $x - $a2 * $y;
                $samples[$o] = $y;
            }
            $this->states[$i] = [$s1, $s2, 0.0, 0.0];
            $scale = 1.0;
        }

        return $samples;
    }
}
