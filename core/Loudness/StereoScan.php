<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\Words;

/**
 * 16-bit stereo, which is what most files hold, in one loop over 8-byte integers of two frames each: taking them apart, both
 * filters of both channels, and the extremes. PlainScan does the same the plain way, and a test compares the two.
 *
 * The filters are in direct form II. The first one's b0 is left out and put on the sums; the second one's numerator is 1, −2, 1
 * and needs no product. Two frames at a time let the states swap their roles, so that none is moved. In each sum what was worked out
 * last comes last, so that little has to be waited for.
 */
final class StereoScan implements Scan
{
    private const FULL_SCALE = 32768.0;

    /** Filter states smaller than this are silence; left alone they would turn denormal and slow the filter tenfold. */
    private const TINY = 1e-12;

    /** @var array{float, float, float, float} shelf left w1, w2, high-pass left v1, v2 */
    private array $left = [0.0, 0.0, 0.0, 0.0];

    /** @var array{float, float, float, float} */
    private array $right = [0.0, 0.0, 0.0, 0.0];
    private readonly KWeighting $filter;
    private readonly TruePeak $peak;
    private int $highest = 0;

    /** @param int $rate such that 100 ms are a whole number of pairs of frames */
    public function __construct(int $rate)
    {
        $this->filter = KWeighting::atRate($rate);
        $this->peak = new TruePeak(2);
    }

    public static function suits(int $rate): bool
    {
        return 0 === $rate % 20;
    }

    public function measure(string $bytes): array
    {
        // A last frame without a pair: silence beside it changes nothing that counts.
        $bytes .= \strlen($bytes) % 8 ? "\0\0\0\0" : '';
        $weighted = 0.0;
        $plain = 0;
        foreach (Words::groupsOf($bytes) as $words) {
            [$energy, $squares, $left, $right] = $this->filtered($words);
            $weighted += $energy;
            $plain += $squares;
            $this->highest = max($this->highest, $left, $right);
            $this->lookForPeak($words, $left, $right);
        }
        $b0 = $this->filter->shelf[0];

        return [$weighted * $b0 * $b0 / self::FULL_SCALE ** 2, $plain / self::FULL_SCALE ** 2];
    }

    public function peaks(): array
    {
        return [$this->peak->highest() / self::FULL_SCALE, $this->highest / self::FULL_SCALE];
    }

    public function forgetPeaks(): void
    {
        $this->peak->forget();
        $this->highest = 0;
    }

    public function finish(): array
    {
        $this->peak->finish();

        return $this->peaks();
    }

    /**
     * @param array<array-key, int> $words
     *
     * @return array{float, int, int, int} sum of weighted squares, of plain squares, loudest sample left and right
     */
    private function filtered(array $words): array
    {
        [$b0, $b1, $b2, $a1, $a2] = $this->filter->shelf;
        $b1 /= $b0;
        $b2 /= $b0;
        [$c1, $c2] = $this->filter->highPass;
        [$w1, $w2, $v1, $v2] = $this->left;
        [$p1, $p2, $q1, $q2] = $this->right;
        $energy = 0.0;
        $squares = $lowLeft = $highLeft = $lowRight = $highRight = 0;
        foreach ($words as $word) {
            $l = ($word << 48) >> 48;
            $r = ($word << 32) >> 48;
            $squares += $l * $l + $r * $r;
            if ($l > $highLeft) {
                $highLeft = $l;
            } elseif ($l < $lowLeft) {
                $lowLeft = $l;
            }
            if ($r > $highRight) {
                $highRight = $r;
            } elseif ($r < $lowRight) {
                $lowRight = $r;
            }
            $w = $l - $a2 * $w2 - $a1 * $w1;
            $v = $b2 * $w2 - $c2 * $v2 + $b1 * $w1 + $w - $c1 * $v1;
            $y = $v2 - $v1 - $v1 + $v;
            $p = $r - $a2 * $p2 - $a1 * $p1;
            $q = $b2 * $p2 - $c2 * $q2 + $b1 * $p1 + $p - $c1 * $q1;
            $z = $q2 - $q1 - $q1 + $q;
            $energy += $y * $y + $z * $z;
            $l = ($word << 16) >> 48;
            $r = $word >> 48;
            $squares += $l * $l + $r * $r;
            if ($l > $highLeft) {
                $highLeft = $l;
            } elseif ($l < $lowLeft) {
                $lowLeft = $l;
            }
            if ($r > $highRight) {
                $highRight = $r;
            } elseif ($r < $lowRight) {
                $lowRight = $r;
            }
            $w2 = $l - $a2 * $w1 - $a1 * $w;
            $v2 = $b2 * $w1 - $c2 * $v1 + $b1 * $w + $w2 - $c1 * $v;
            $y = $v1 - $v - $v + $v2;
            $p2 = $r - $a2 * $p1 - $a1 * $p;
            $q2 = $b2 * $p1 - $c2 * $q1 + $b1 * $p + $p2 - $c1 * $q;
            $z = $q1 - $q - $q + $q2;
            $energy += $y * $y + $z * $z;
            $w1 = $w2;
            $w2 = $w;
            $v1 = $v2;
            $v2 = $v;
            $p1 = $p2;
            $p2 = $p;
            $q1 = $q2;
            $q2 = $q;
        }
        $this->left = self::flushed($w1, $w2, $v1, $v2);
        $this->right = self::flushed($p1, $p2, $q1, $q2);

        return [$energy, $squares, max($highLeft, -$lowLeft), max($highRight, -$lowRight)];
    }

    /** @return array{float, float, float, float} */
    private static function flushed(float $w1, float $w2, float $v1, float $v2): array
    {
        return abs($v1) + abs($v2) + abs($w1) + abs($w2) < self::TINY ? [0.0, 0.0, 0.0, 0.0] : [$w1, $w2, $v1, $v2];
    }

    /** @param array<array-key, int> $words */
    private function lookForPeak(array $words, int $left, int $right): void
    {
        $risingLeft = $this->peak->mayRise(0, $left);
        $risingRight = $this->peak->mayRise(1, $right);
        if (!$risingLeft && !$risingRight && \count($words) >= TruePeak::TAPS) {
            $words = \array_slice($words, -intdiv(TruePeak::TAPS, 2));
        }
        $lefts = $rights = array_fill(0, 2 * \count($words), 0);
        $i = 0;
        foreach ($words as $word) {
            $lefts[$i] = ($word << 48) >> 48;
            $rights[$i] = ($word << 32) >> 48;
            $lefts[$i + 1] = ($word << 16) >> 48;
            $rights[$i + 1] = $word >> 48;
            $i += 2;
        }
        $short = $i < TruePeak::TAPS;
        $risingLeft || $short ? $this->peak->push(0, $lefts, $left) : $this->peak->pass(0, $lefts, $left);
        $risingRight || $short ? $this->peak->push(1, $rights, $right) : $this->peak->pass(1, $rights, $right);
    }
}
