<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Loudness\Series;

/** What two lanes leave of the power of tracks, during some stretches. */
final readonly class Taken
{
    /** @var list<float> what is left of the amplitude of the band of speech, by 100 ms of those stretches one after another */
    private array $band;
    /** @var list<float> what is left of the power of all of it, likewise */
    private array $all;

    /**
     * @param Curve $all timeline time
     * @param Curve $band of the band of speech
     * @param int $frames samples of 100 ms
     * @param list<array{int, int}> $stretches first 100 ms, last + 1, in the order of time
     */
    public function __construct(Curve $all, Curve $band, int $frames, private array $stretches)
    {
        $middles = [];
        foreach ($stretches as [$from, $to]) {
            for ($k = $from; $k < $to; ++$k) {
                $middles[] = $k * $frames + intdiv($frames, 2);
            }
        }
        $this->band = array_map(static fn (float $db): float => 10.0 ** ($db / 20.0), $band->levelsAt($middles));
        $this->all = array_map(static fn (float $db): float => 10.0 ** ($db / 10.0), $all->levelsAt($middles));
    }

    /**
     * @param array{Series, Series, Series} $shares of a track: see {@see BandShares}
     *
     * @return array{float, float} power before and after
     */
    public function of(array $shares): array
    {
        $before = $after = 0.0;
        $n = 0;
        foreach ($this->stretches as [$from, $to]) {
            [$none, $once, $twice] = array_map(static fn (Series $row): array => $row->slice($from, $to - $from), $shares);
            // Where a row ends there is nothing more to take.
            foreach ($none as $i => $power) {
                $left = $this->band[$n + $i];
                $before += $power + $once[$i] + $twice[$i];
                $after += ($power + $left * ($once[$i] + $left * $twice[$i])) * $this->all[$n + $i];
            }
            $n += $to - $from;
        }

        return [$before, $after];
    }
}
