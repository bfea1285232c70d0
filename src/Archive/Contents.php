<?php

declare(strict_types=1);

namespace Wattage\App\Archive;

/** What is in an archive: sources, and a mix with its snapshots, or a cut. */
final readonly class Contents
{
    /**
     * @param list<MediaEntry> $media
     * @param ?string $mix mix JSON
     * @param list<array{string, string}> $snapshots name and mix JSON, the oldest first
     * @param ?string $cut OpenTimelineIO
     */
    public function __construct(public string $name, public array $media, public ?string $mix, public array $snapshots, public ?string $cut)
    {
    }
}
