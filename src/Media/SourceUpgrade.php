<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\Source;

/** Works out of a source that was taken in by an earlier version what is stored beside its sound today. */
final readonly class SourceUpgrade
{
    public function __construct(private Spool $spool, private MediaStore $store, private SourceParts $parts)
    {
    }

    public function of(Source $source): void
    {
        $work = $this->spool->workDirectory($source->id);
        try {
            foreach (['blocks', 'waveform'] as $part) {
                $this->store->fetch($source, $part, $this->spool->file($work, $part, $source->name), static fn () => null);
            }
            [, $source->loudness] = $this->parts->work($work, $source->channels ?? 1, static fn () => null);
            $this->parts->publish($source, $work, [], static fn () => null);
            $source->soundSha256 = $this->store->digest(MediaStore::pathOf($source, 'pcm'));
        } finally {
            $this->spool->remove($work);
        }
    }
}
