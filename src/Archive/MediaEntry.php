<?php

declare(strict_types=1);

namespace Wattage\App\Archive;

/** A file with sound in an archive. */
final readonly class MediaEntry
{
    /**
     * @param string $entry its name in the archive
     * @param string $name what it is called as a source
     * @param string $id by which the rest of the archive knows it
     * @param ?string $sha256 what it must be, hexadecimal; null where that is not said
     */
    public function __construct(public string $entry, public string $name, public string $id, public ?string $sha256)
    {
    }
}
