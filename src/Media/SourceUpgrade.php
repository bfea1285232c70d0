<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\Source;
use Wattage\Core\Timeline\Mix;

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
            $measuring = Measuring::into($this->spool, $work, MediaStore::formatOf($source), $source->fileRate ?? Mix::DEFAULT_RATE, $source->name);
            $sound = $this->store->sound($source);
            for ($at = 0; $at < (int) $source->frames; $at += Mix::DEFAULT_RATE) {
                $measuring->push($sound->read($at, min(Mix::DEFAULT_RATE, (int) $source->frames - $at)));
            }
            $measuring->finish();
            [, $source->loudness] = $this->parts->work($work, $source->channels ?? 1, static fn () => null);
            $this->parts->publish($source, $work, [], static fn () => null);
            $source->soundDigest = $this->store->digest(MediaStore::pathOf($source, 'pcm'), MediaStore::DIGEST);
        } finally {
            $this->spool->remove($work);
        }
    }
}
