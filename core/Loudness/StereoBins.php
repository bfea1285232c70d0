<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Bands\Lows;
use Wattage\Core\Signal\PcmFormat;

/** What the quick ways of 16 and 24-bit stereo have in common: the filters, as {@see StereoScan} has them, and what these hold from block to block. */
abstract class StereoBins implements Bins
{
    /** Filter states smaller than this are silence; left alone they would turn denormal and slow the filter tenfold. */
    private const TINY = 1e-12;

    /** @var array{float, float, float, float, float, float, float, float} shelf w1, w2 and high-pass v1, v2 of the left, then of the right */
    protected array $states = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];

    /** @var array{Lows, Lows} left, right */
    protected readonly array $lows;

    /** @param int $bin frames, a whole number of units */
    final public function __construct(protected readonly KWeighting $filter, protected readonly int $bin)
    {
        $this->lows = [new Lows(), new Lows()];
    }

    final public function rest(PcmFormat $format): PlainBins
    {
        [$w1, $w2, $v1, $v2, $p1, $p2, $q1, $q2] = $this->states;
        // Here b0 of the shelf is left out, and put on the sums.
        $b0 = $this->filter->shelf[0];

        return new PlainBins($format, $this->filter, $this->bin, [[$w1, $w2, $v1 * $b0, $v2 * $b0], [$p1, $p2, $q1 * $b0, $q2 * $b0]], $this->lows);
    }

    /** @param array{float, float, float, float, float, float, float, float} $states */
    final protected function hold(array $states): void
    {
        $this->states = array_sum(array_map(abs(...), $states)) < self::TINY ? [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0] : $states;
    }
}
