<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\PcmFormat;

/** K-weights sound block by block, and notes the extremes of its bins on the way: one pass, because the pass is what costs. */
interface Bins
{
    /**
     * @param string $bytes one block of interleaved PCM
     *
     * @return array{list<float>, list<int>, list<list<int>>} sum of the squared K-weighted samples, by channel; lowest and highest plain sample, by bin and channel;
     *                                                        the sound at an eighth of its rate, by channel: see {@see \Wattage\Core\Bands\Lows}
     */
    public function block(string $bytes): array;

    /** What goes on from here the plain way, with a last block that is shorter. */
    public function rest(PcmFormat $format): PlainBins;
}
