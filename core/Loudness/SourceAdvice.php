<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** The gain that gives a source a rough level by what it is used for, before anything is balanced. */
final readonly class SourceAdvice
{
    /** dBFS that no sample of a prepared source should pass. */
    private const CEILING = -1.0;

    /**
     * @param Stem $use on whose tracks it lies; speech where on any of speech
     * @param float $target dBFS, average
     * @param float $gain dB
     * @param ?string $limit "peak" or "gain", where that ended it early
     */
    private function __construct(public Stem $use, public float $target, public float $gain, public ?string $limit)
    {
    }

    /**
     * @param ?float $average dBFS, as measured; null for silence
     * @param float $peak dBFS, as measured
     *
     * @return ?self null where it is silent, or in no clip yet
     */
    public static function of(Mix $mix, string $source, ?float $average, float $peak): ?self
    {
        $use = self::use($mix, $source);
        if (null === $use || null === $average) {
            return null;
        }
        $target = EvenUp::usual($use);
        $gain = $target - $average;
        $limits = ['peak' => self::CEILING - $peak, 'gain' => Decibels::MAX_CLIP];
        asort($limits);
        $limit = $gain > reset($limits) ? key($limits) : null;

        return new self($use, $target, round(null === $limit ? $gain : $limits[$limit], 1), $limit);
    }

    private static function use(Mix $mix, string $source): ?Stem
    {
        $use = null;
        foreach ($mix->tracks as $track) {
            if (\in_array($source, array_column($track->clips, 'source'), true)) {
                $use = Stem::Speech === $track->stem ? Stem::Speech : $use ?? $track->stem;
            }
        }

        return $use;
    }
}
