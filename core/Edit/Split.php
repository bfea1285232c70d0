<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** Splits clips at given moments. */
final readonly class Split implements Edit
{
    /** @param non-empty-list<array{string, int}> $cuts clip and timeline samples */
    public function __construct(private array $cuts)
    {
    }

    public function label(Mix $before): string
    {
        $clips = array_values(array_unique(array_column($this->cuts, 0)));

        return 'Split '.Naming::clips($before, $clips).' at '.implode(' and ', array_map(static fn (int $at): string => Timecode::clock($at, $before->rate), array_unique(array_column($this->cuts, 1))));
    }

    public function apply(Mix $before): Mix
    {
        $knife = new Knife($before);
        $cuts = $this->cuts;
        // From the back, so that what is named still begins where it did.
        usort($cuts, static fn (array $a, array $b): int => $b[1] <=> $a[1]);
        foreach ($cuts as [$id, $at]) {
            $track = $before->trackOf($id);
            $before = $before->withTrack($track->withClip(...$knife->cut($track, $track->clips[$id], $at)));
        }

        return $before;
    }
}
