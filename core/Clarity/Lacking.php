<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Closure;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** A recording of speech at so low a rate that upper bands are missing in it: they are taken for silent, and it is said. */
final readonly class Lacking
{
    /**
     * @param string $source its id
     * @param int $rate samples per second that it was recorded at
     * @param int $hz nominal centre of the highest band that it has; 0 for none
     * @param int $most clarity that it can reach, 0 … 100
     */
    private function __construct(public string $source, public int $rate, public int $hz, public int $most)
    {
    }

    /**
     * @param Closure(string): ?int $rateOf samples per second that a source was recorded at, by its id
     *
     * @return list<self> of what speaks in the mix
     */
    public static function in(Mix $mix, Closure $rateOf): array
    {
        $speaking = [];
        foreach ($mix->tracks as $track) {
            if (Stem::Speech === $track->stem && !$track->isSilent()) {
                $speaking += array_fill_keys(array_column($track->clips, 'source'), true);
            }
        }
        $lacking = [];
        foreach (array_map(strval(...), array_keys($speaking)) as $source) {
            $rate = $rateOf($source) ?? $mix->rate;
            $bands = ThirdOctaves::within($rate);
            if ($bands < ThirdOctaves::COUNT) {
                $most = array_sum(\array_slice(SpeechIndex::IMPORTANCE, 0, $bands));
                $lacking[] = new self($source, $rate, ThirdOctaves::CENTRES[$bands - 1] ?? 0, (int) round(Clarity::MOST * $most));
            }
        }

        return $lacking;
    }
}
