<?php

declare(strict_types=1);

namespace Wattage\App\Archive;

/** What is in an archive: sources, and a mix with its snapshots, or a cut. */
final readonly class Contents
{
    /**
     * @param list<MediaEntry> $media
     * @param ?array<array-key, mixed> $mix mix JSON, taken apart
     * @param list<array{string, array<array-key, mixed>}> $snapshots name and mix JSON, the oldest first
     * @param ?string $cut OpenTimelineIO
     */
    public function __construct(public string $name, public array $media, public ?array $mix, public array $snapshots, public ?string $cut)
    {
    }
}
