<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Which tracks an edit of the timeline works on: some, or all. Locked ones are left alone where all are meant. */
final readonly class OnTracks
{
    /** @param list<string> $ids none for all */
    public function __construct(private array $ids = [])
    {
    }

    public function areAll(): bool
    {
        return [] === $this->ids;
    }

    /** @return list<Track> */
    public function of(Mix $mix): array
    {
        return $this->areAll()
            ? array_values(array_filter($mix->tracks, static fn (Track $track): bool => !$track->locked))
            : array_map($mix->track(...), $this->ids);
    }

    /** For labels: which tracks alone are meant, where it is not all. */
    public function only(Mix $mix): string
    {
        $names = array_map(static fn (string $id): string => $mix->track($id)->name, $this->ids);

        return [] === $names ? '' : Naming::only($names);
    }
}
