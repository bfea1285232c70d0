<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Effort;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\TimeMap;
use Wattage\Core\Timeline\Mix;

/** Removes clips. What comes later stays where it is, or moves up to close the gap. */
final readonly class RemoveClips implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private bool $close = false)
    {
    }

    public function label(Mix $before): string
    {
        $tracks = Naming::tracksOf($before, $this->clips);

        return 'Remove '.Naming::clips($before, $this->clips).($this->close && [] !== $tracks ? ' and close the gap'.Naming::only($tracks) : '');
    }

    public function apply(Mix $before): Mix
    {
        $byTrack = [];
        foreach (array_unique($this->clips) as $id) {
            $byTrack[$before->trackOf($id)->id][] = $id;
        }
        foreach ($byTrack as $track => $ids) {
            $before = $this->close ? $this->closed($before, (string) $track, $ids) : $before->withTrack($before->track((string) $track)->withoutClip(...$ids));
        }

        return $before;
    }

    /** @param list<string> $ids */
    private function closed(Mix $mix, string $track, array $ids): Mix
    {
        Effort::affordable(\count($ids) * \count($mix->track($track)->clips), 'clips');
        foreach (array_reverse($mix->track($track)->inOrder()) as $clip) {
            if (!\in_array($clip->id, $ids, true)) {
                continue;
            }
            $mix = $mix->withTrack($mix->track($track)->withoutClip($clip->id));
            $following = array_filter(array_column($mix->track($track)->inOrder(), 'at'), static fn (int $at): bool => $at > $clip->at);
            $gap = min($clip->length, [] === $following ? $clip->length : min($following) - $clip->at);
            $mix = Ripple::track($mix, $track, TimeMap::removing(Span::of($clip->at, $clip->at + $gap)));
        }

        return $mix;
    }
}
