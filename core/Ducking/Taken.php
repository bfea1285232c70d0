<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Loudness\Series;

/** What two lanes leave of the power of a track. */
final readonly class Taken
{
    /**
     * @param Curve $all timeline time
     * @param Curve $band of the band of speech
     * @param int $frames samples of 100 ms
     */
    public function __construct(private Curve $all, private Curve $band, private int $frames)
    {
    }

    /**
     * @param int $from number of the first 100 ms, as $to
     * @param array{Series, Series, Series} $shares of the track: see {@see BandShares}
     *
     * @return array{float, float} power before and after
     */
    public function between(int $from, int $to, array $shares): array
    {
        [$none, $once, $twice] = array_map(static fn (Series $row): array => $row->slice($from, $to - $from), $shares);
        $before = $after = 0.0;
        foreach ($none as $i => $power) {
            $at = ($from + $i) * $this->frames + intdiv($this->frames, 2);
            $left = $this->band->isFlat() ? 1.0 : $this->band->levelAt($at)->ratio();
            $all = $this->all->isFlat() ? 1.0 : $this->all->levelAt($at)->ratio();
            $before += $power + $once[$i] + $twice[$i];
            $after += ($power + $left * ($once[$i] + $left * $twice[$i])) * $all * $all;
        }

        return [$before, $after];
    }
}
