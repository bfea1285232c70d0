<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\Core\Loudness\Totals;

/** All that is known of a source once it has been taken in. */
final readonly class Measured
{
    /**
     * @param ?float $average dBFS, pauses left out; null for silence
     * @param array{integrated: ?float, range: float, maxShortTerm: ?float} $loudness LUFS, LU, LUFS: as it is heard on a track without any gain
     * @param string $sha256 of the file as sent
     * @param string $soundSha256 of the sound as stored
     * @param ?string $warning what was wrong with the file although it could be read
     */
    public function __construct(
        public AudioFacts $facts,
        public Totals $totals,
        public ?float $average,
        public array $loudness,
        public string $sha256,
        public string $soundSha256,
        public ?string $warning,
    ) {
    }
}
