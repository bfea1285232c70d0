<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** Filters one after the other on a sound that comes in pieces, and what they remember from one piece to the next. */
final class Cascade
{
    /** Softer than this, what is left ringing is silence. */
    private const SILENCE = 1e-12;

    /** @var list<array{float, float, float, float}> b1 and b2 as parts of b0, a1, a2: all of b0 are taken together, which saves a multiplication a filter */
    private array $parts = [];
    private float $gain = 1.0;
    /** @var list<array{float, float, float, float}> two for each channel, by filter */
    private array $states;

    /** @param list<Biquad> $biquads none of which begins with nothing: b0 is not 0 */
    public function __construct(private readonly array $biquads)
    {
        foreach ($biquads as $biquad) {
            $this->parts[] = [$biquad->b1 / $biquad->b0, $biquad->b2 / $biquad->b0, $biquad->a1, $biquad->a2];
            $this->gain *= $biquad->b0;
        }
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
     * Four filters at a time, as long as there are so many: reading and writing the array is half of the work of two.
     *
     * @param array<int, int|float> $samples interleaved stereo
     * @param float $scale what they are multiplied by first
     *
     * @return array<int, float>
     */
    public function stereo(array $samples, float $scale = 1.0): array
    {
        $scale *= $this->gain;
        $last = \count($this->parts);
        for ($i = 0; $i + 3 < $last; $i += 4) {
            $samples = $this->four($samples, $scale, $i);
            $scale = 1.0;
        }
        for (; $i + 1 < $last; $i += 2) {
            $samples = $this->two($samples, $scale, $i);
            $scale = 1.0;
        }

        return $i < $last ? $this->one($samples, $scale, $i) : $samples;
    }

    /**
     * @param array<int, int|float> $samples of one channel
     * @param float $scale what they are multiplied by first
     *
     * @return array<int, float>
     */
    public function mono(array $samples, float $scale = 1.0): array
    {
        $scale *= $this->gain;
        foreach ($this->parts as $i => [$b1, $b2, $a1, $a2]) {
            [$s1, $s2] = $this->states[$i];
            for ($o = 0, $n = \count($samples); $o < $n; ++$o) {
                $x = $scale * $samples[$o];
                $y = $x + $s1;
                $s1 = $b1 * $x - $a1 * $y + $s2;
                $s2 = $b2 * $x - $a2 * $y;
                $samples[$o] = $y;
            }
            $this->states[$i] = [$s1, $s2, 0.0, 0.0];
            $scale = 1.0;
        }

        return $samples;
    }

    /**
     * @param array<int, int|float> $samples
     * @param int $i number of the first filter
     *
     * @return array<int, float>
     */
    private function four(array $samples, float $scale, int $i): array
    {
        [[$b1, $b2, $a1, $a2], [$d1, $d2, $c1, $c2], [$f1, $f2, $e1, $e2], [$h1, $h2, $g1, $g2]] = \array_slice($this->parts, $i, 4);
        [[$l1, $l2, $r1, $r2], [$l3, $l4, $r3, $r4], [$l5, $l6, $r5, $r6], [$l7, $l8, $r7, $r8]] = \array_slice($this->states, $i, 4);
        for ($o = 0, $n = \count($samples); $o < $n; $o += 2) {
            $x = $scale * $samples[$o];
            $y = $x + $l1;
            $l1 = $b1 * $x - $a1 * $y + $l2;
            $l2 = $b2 * $x - $a2 * $y;
            $x = $y + $l3;
            $l3 = $d1 * $y - $c1 * $x + $l4;
            $l4 = $d2 * $y - $c2 * $x;
            $y = $x + $l5;
            $l5 = $f1 * $x - $e1 * $y + $l6;
            $l6 = $f2 * $x - $e2 * $y;
            $x = $y + $l7;
            $l7 = $h1 * $y - $g1 * $x + $l8;
            $l8 = $h2 * $y - $g2 * $x;
            $samples[$o] = $x;
            $x = $scale * $samples[$o + 1];
            $y = $x + $r1;
            $r1 = $b1 * $x - $a1 * $y + $r2;
            $r2 = $b2 * $x - $a2 * $y;
            $x = $y + $r3;
            $r3 = $d1 * $y - $c1 * $x + $r4;
            $r4 = $d2 * $y - $c2 * $x;
            $y = $x + $r5;
            $r5 = $f1 * $x - $e1 * $y + $r6;
            $r6 = $f2 * $x - $e2 * $y;
            $x = $y + $r7;
            $r7 = $h1 * $y - $g1 * $x + $r8;
            $r8 = $h2 * $y - $g2 * $x;
            $samples[$o + 1] = $x;
        }
        array_splice($this->states, $i, 4, [[$l1, $l2, $r1, $r2], [$l3, $l4, $r3, $r4], [$l5, $l6, $r5, $r6], [$l7, $l8, $r7, $r8]]);

        return $samples;
    }

    /**
     * @param array<int, int|float> $samples
     *
     * @return array<int, float>
     */
    private function two(array $samples, float $scale, int $i): array
    {
        [[$b1, $b2, $a1, $a2], [$d1, $d2, $c1, $c2]] = \array_slice($this->parts, $i, 2);
        [[$l1, $l2, $r1, $r2], [$l3, $l4, $r3, $r4]] = \array_slice($this->states, $i, 2);
        for ($o = 0, $n = \count($samples); $o < $n; $o += 2) {
            $x = $scale * $samples[$o];
            $y = $x + $l1;
            $l1 = $b1 * $x - $a1 * $y + $l2;
            $l2 = $b2 * $x - $a2 * $y;
            $x = $y + $l3;
            $l3 = $d1 * $y - $c1 * $x + $l4;
            $l4 = $d2 * $y - $c2 * $x;
            $samples[$o] = $x;
            $x = $scale * $samples[$o + 1];
            $y = $x + $r1;
            $r1 = $b1 * $x - $a1 * $y + $r2;
            $r2 = $b2 * $x - $a2 * $y;
            $x = $y + $r3;
            $r3 = $d1 * $y - $c1 * $x + $r4;
            $r4 = $d2 * $y - $c2 * $x;
            $samples[$o + 1] = $x;
        }
        array_splice($this->states, $i, 2, [[$l1, $l2, $r1, $r2], [$l3, $l4, $r3, $r4]]);

        return $samples;
    }

    /**
     * @param array<int, int|float> $samples
     *
     * @return array<int, float>
     */
    private function one(array $samples, float $scale, int $i): array
    {
        [$b1, $b2, $a1, $a2] = $this->parts[$i];
        [$l1, $l2, $r1, $r2] = $this->states[$i];
        for ($o = 0, $n = \count($samples); $o < $n; $o += 2) {
            $x = $scale * $samples[$o];
            $y = $x + $l1;
            $l1 = $b1 * $x - $a1 * $y + $l2;
            $l2 = $b2 * $x - $a2 * $y;
            $samples[$o] = $y;
            $x = $scale * $samples[$o + 1];
            $y = $x + $r1;
            $r1 = $b1 * $x - $a1 * $y + $r2;
            $r2 = $b2 * $x - $a2 * $y;
            $samples[$o + 1] = $y;
        }
        $this->states[$i] = [$l1, $l2, $r1, $r2];

        return $samples;
    }
}
