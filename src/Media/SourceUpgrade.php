<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\Source;
use Wattage\App\Storage\OutFile;

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
                $this->fetch($source, $part, $work);
            }
            [, $source->loudness] = $this->parts->work($work, $source->channels ?? 1, static fn () => null);
            $this->parts->publish($source, $work, [], static fn () => null);
            $source->soundSha256 = $this->store->digest(MediaStore::pathOf($source, 'pcm'));
        } finally {
            $this->spool->remove($work);
        }
    }

    private function fetch(Source $source, string $part, string $work): void
    {
        $stored = $this->store->open(MediaStore::pathOf($source, $part));
        $copy = $this->spool->file($work, $part, $source->name);
        for ($at = 0, $size = $stored->size(); $at < $size; $at += OutFile::PIECE) {
            $copy->write($stored->read($at, OutFile::PIECE));
        }
        $copy->close();
    }
}
