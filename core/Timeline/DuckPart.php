<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** What of a track gives way. */
enum DuckPart: string
{
    case All = 'all';
    /** Only what speech is understood by: {@see \Wattage\Core\Filter\SpeechBand}. */
    case Band = 'band';
    /** That first, as far as it goes, and then the rest. */
    case BandFirst = 'band-first';

    /** Where the band alone is as good as gone, dB: from here on the rest goes too. */
    public const MOST_OF_BAND = -15.0;

    /** @return array{float, float} dB of all, and of the band besides, for a dip of so many */
    public function split(float $depth): array
    {
        return match ($this) {
            self::All => [$depth, 0.0],
            self::Band => [0.0, $depth],
            self::BandFirst => [min(0.0, $depth - self::MOST_OF_BAND), max($depth, self::MOST_OF_BAND)],
        };
    }
}
