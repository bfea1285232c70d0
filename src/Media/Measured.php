<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\Core\Loudness\Totals;
use Wattage\Core\Timeline\Mix;

/** All that is known of a source once it has been taken in. */
final readonly class Measured
{
    /**
     * @param ?float $average dBFS, pauses left out; null for silence
     * @param array{integrated: ?float, range: float, maxShortTerm: ?float} $loudness LUFS, LU, LUFS: as it is heard on a track without any gain
     * @param string $sha256 of the file as sent
     * @param string $soundDigest of the sound as stored, see MediaStore
     * @param ?string $warning what was wrong with the file although it could be read
     */
    public function __construct(
        public AudioFacts $facts,
        public Totals $totals,
        public ?float $average,
        public array $loudness,
        public string $sha256,
        public string $soundDigest,
        public ?string $warning,
    ) {
    }

    /** The one moment in which a source becomes usable. */
    public function makeReady(Source $source): void
    {
        $source->format = $this->facts->format;
        $source->fileRate = $this->facts->rate;
        $source->channels = $this->facts->channels;
        $source->bits = $this->facts->bits;
        $source->frames = $this->totals->frames;
        $source->peakDbfs = $this->totals->peak > 0.0 ? 20.0 * log10($this->totals->peak) : -200.0;
        $source->averageDbfs = $this->average;
        $source->loudness = $this->loudness;
        $source->warning = $this->warning;
        $source->picture = $this->facts->hasPicture ? PictureState::Making : PictureState::None;
        $source->sha256 = $this->sha256;
        $source->soundDigest = $this->soundDigest;
        $source->beganAt = null === $this->facts->beganAt ? null : (int) round($this->facts->beganAt * Mix::DEFAULT_RATE);
        $source->marks = array_map(static fn (array $mark): array => [(int) round($mark[0] * Mix::DEFAULT_RATE), $mark[1]], $this->facts->chapters);
        $source->problem = null;
        $source->state = SourceState::Ready;
    }
}
