<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

/** A cut that was made elsewhere: which part of which file sounds when. */
final readonly class Cut
{
    /** Clips that are laid at once. */
    public const MOST_CLIPS = 8000;

    /**
     * @param list<CutTrack> $tracks those of sound, in their order
     * @param list<array{int, string}> $markers timeline samples and name, in the order of time
     * @param list<string> $left sentences about what was not taken over
     */
    public function __construct(public string $name, public array $tracks, public array $markers, public array $left)
    {
    }

    public function clips(): int
    {
        return array_sum(array_map(static fn (CutTrack $track): int => \count($track->clips), $this->tracks));
    }
}
