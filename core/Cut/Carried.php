<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Interchange\SourceIds;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** The whole mix that a cut of ours carries as metadata, levels and all, for the sources of the project that it is brought into. */
final readonly class Carried
{
    /** Where the names of its files stand, by the id of the source. */
    public const FILES = 'wattage-files';

    /**
     * @param string $json OpenTimelineIO
     * @param list<array{string, Source}> $sources of the project, with the names of the files that they were
     *
     * @return ?array<string, mixed> mix JSON; null where the cut carries none, or a source that it uses is not here
     */
    public static function in(string $json, array $sources): ?array
    {
        $file = json_decode($json, true, 64);
        $metadata = \is_array($file) && \is_array($file['metadata'] ?? null) ? $file['metadata'] : [];
        try {
            $mix = isset($metadata['wattage']) ? MixDocument::fromArray($metadata['wattage']) : null;
        } catch (Problem) {
            return null;
        }
        if (null === $mix) {
            return null;
        }
        $ids = self::ids($mix, \is_array($metadata[self::FILES] ?? null) ? $metadata[self::FILES] : [], $sources);
        if (null === $ids) {
            return null;
        }
        /** @var array<string, mixed> $here */
        $here = MixDocument::parsed(SourceIds::replaced(MixDocument::encode($mix), $ids));

        return $here;
    }

    /**
     * @param array<array-key, mixed> $files
     * @param list<array{string, Source}> $sources
     *
     * @return ?array<string, string> ids of sources here, by those in the file; null where one is missing
     */
    private static function ids(Mix $mix, array $files, array $sources): ?array
    {
        // By what it is first, then by what it is called, which tells channels of one file apart, then by its file.
        $here = [];
        foreach ($sources as [$file, $source]) {
            $here["id {$source->id}"] = $source->id;
            $here['name '.mb_strtolower($source->name)] ??= $source->id;
            $here['file '.mb_strtolower($file)] ??= $source->id;
        }
        $ids = [];
        foreach (array_keys($mix->usedSources()) as $id) {
            $name = mb_strtolower($mix->source((string) $id)->name);
            $file = \is_string($files[$id] ?? null) ? mb_strtolower($files[$id]) : $name;
            $found = $here["id {$id}"] ?? $here["name {$name}"] ?? $here["file {$file}"] ?? null;
            if (null === $found) {
                return null;
            }
            $ids[(string) $id] = $found;
        }

        return $ids;
    }
}
