<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** K-weights one channel block by block, and notes the extremes of its bins on the way. One pass, because the pass is what costs. */
final class ChannelMeter
{
    /** Filter states smaller than this are silence; left alone they would turn denormal and slow the filter tenfold. */
    private const TINY = 1e-12;

    /** The states are those of the shelf and of the high-pass, in direct form II. */
    public function __construct(
        private readonly KWeighting $filter,
        private float $w1 = 0.0,
        private float $w2 = 0.0,
        private float $v1 = 0.0,
        private float $v2 = 0.0,
    ) {
    }

    /**
     * @template T of float|int
     *
     * @param array<int, T> $samples interleaved
     * @param int $from index of this channel's first sample
     * @param int $stride number of channels
     * @param int $frames how many samples of this channel
     *
     * @return array{float, T, T, float} sum of the squared K-weighted samples, lowest and highest plain sample, sum of the squared plain samples
     */
    public function measure(array $samples, int $from, int $stride, int $frames): array
    {
        [$b0, $b1, $b2, $a1, $a2] = $this->filter->shelf;
        [$c1, $c2] = $this->filter->highPass;
        [$w1, $w2, $v1, $v2] = [$this->w1, $this->w2, $this->v1, $this->v2];
        $energy = $squares = 0.0;
        $low = $high = $samples[$from];
        for ($i = $from, $end = $from + $frames * $stride; $i < $end; $i += $stride) {
            $x = $samples[$i];
            if ($x < $low) {
                $low = $x;
            } elseif ($x > $high) {
                $high = $x;
            }
            $squares += $x * $x;
            $w = $x - $a1 * $w1 - $a2 * $w2;
            $v = $b0 * $w + $b1 * $w1 + $b2 * $w2 - $c1 * $v1 - $c2 * $v2;
            $y = $v - 2.0 * $v1 + $v2;
            $energy += $y * $y;
            $w2 = $w1;
            $w1 = $w;
            $v2 = $v1;
            $v1 = $v;
        }
        $this->w1 = abs($w1) < self::TINY ? 0.0 : $w1;
        $this->w2 = abs($w2) < self::TINY ? 0.0 : $w2;
        $this->v1 = abs($v1) < self::TINY ? 0.0 : $v1;
        $this->v2 = abs($v2) < self::TINY ? 0.0 : $v2;

        return [$energy, $low, $high, $squares];
    }
}
