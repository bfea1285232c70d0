<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\Words;

/**
 * 16-bit stereo as it is taken in, in one loop over 8-byte integers of two frames each: taking them apart, both filters of both channels, and the extremes of the bins.
 *
 * The filters are those of {@see StereoScan}, in the same form; {@see PlainBins} does it the plain way, and a test compares them.
 */
final class StereoBins16 extends StereoBins
{
    private const UNIT = 2;

    /** Whether a block of so many frames is a whole number of groups of words, and its bins of units. */
    public static function suits(int $block, int $bin): bool
    {
        return 0 === $bin % self::UNIT && 0 === $block % (self::UNIT * Words::GROUP);
    }

    public function block(string $bytes): array
    {
        [$b0, $b1, $b2, $a1, $a2] = $this->filter->shelf;
        $b1 /= $b0;
        $b2 /= $b0;
        [$c1, $c2] = $this->filter->highPass;
        [$w1, $w2, $v1, $v2, $p1, $p2, $q1, $q2] = $this->states;
        $left = $right = 0.0;
        $lowLeft = $lowRight = \PHP_INT_MAX;
        $highLeft = $highRight = \PHP_INT_MIN;
        $extremes = $lowsLeft = $lowsRight = [];
        [$sumLeft, $sumsLeft, $sumRight, $sumsRight] = [0, 0, 0, 0];
        $end = $step = intdiv($this->bin, self::UNIT);
        $unit = 0;
        foreach (Words::groupsOf($bytes) as $words) {
            foreach ($words as $word) {
                if ($unit++ === $end) {
                    array_push($extremes, $lowLeft, $highLeft, $lowRight, $highRight);
                    $lowLeft = $lowRight = \PHP_INT_MAX;
                    $highLeft = $highRight = \PHP_INT_MIN;
                    $end += $step;
                }
                $l = ($word << 48) >> 48;
                $r = ($word << 32) >> 48;
                if ($l > $highLeft) {
                    $highLeft = $l;
                }
                if ($l < $lowLeft) {
                    $lowLeft = $l;
                }
                if ($r > $highRight) {
                    $highRight = $r;
                }
                if ($r < $lowRight) {
                    $lowRight = $r;
                }
                $w = $l - $a2 * $w2 - $a1 * $w1;
                $v = $b2 * $w2 - $c2 * $v2 + $b1 * $w1 + $w - $c1 * $v1;
                $y = $v2 - $v1 - $v1 + $v;
                $p = $r - $a2 * $p2 - $a1 * $p1;
                $q = $b2 * $p2 - $c2 * $q2 + $b1 * $p1 + $p - $c1 * $q1;
                $z = $q2 - $q1 - $q1 + $q;
                $left += $y * $y;
                $right += $z * $z;
                $sumLeft += $l;
                $sumsLeft += $sumLeft;
                $sumRight += $r;
                $sumsRight += $sumRight;
                $l = ($word << 16) >> 48;
                $r = $word >> 48;
                if ($l > $highLeft) {
                    $highLeft = $l;
                }
                if ($l < $lowLeft) {
                    $lowLeft = $l;
                }
                if ($r > $highRight) {
                    $highRight = $r;
                }
                if ($r < $lowRight) {
                    $lowRight = $r;
                }
                $w2 = $l - $a2 * $w1 - $a1 * $w;
                $v2 = $b2 * $w1 - $c2 * $v1 + $b1 * $w + $w2 - $c1 * $v;
                $y = $v1 - $v - $v + $v2;
                $p2 = $r - $a2 * $p1 - $a1 * $p;
                $q2 = $b2 * $p1 - $c2 * $q1 + $b1 * $p + $p2 - $c1 * $q;
                $z = $q1 - $q - $q + $q2;
                $left += $y * $y;
                $right += $z * $z;
                $sumLeft += $l;
                $sumsLeft += $sumLeft;
                $sumRight += $r;
                $sumsRight += $sumRight;
                $w1 = $w2;
                $w2 = $w;
                $v1 = $v2;
                $v2 = $v;
                $p1 = $p2;
                $p2 = $p;
                $q1 = $q2;
                $q2 = $q;
                if (0 === ($unit & 3)) {
                    $lowsLeft[] = $sumsLeft;
                    $lowsRight[] = $sumsRight;
                }
            }
        }
        array_push($extremes, $lowLeft, $highLeft, $lowRight, $highRight);
        $this->hold([$w1, $w2, $v1, $v2, $p1, $p2, $q1, $q2]);

        return [[$left * $b0 * $b0, $right * $b0 * $b0], $extremes, [$this->lows[0]->of($lowsLeft, $sumLeft), $this->lows[1]->of($lowsRight, $sumRight)]];
    }
}
