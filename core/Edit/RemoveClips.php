<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Removes clips. What comes later stays where it is, or moves up to close the gap. */
final readonly class RemoveClips implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private bool $close = false)
    {
    }

    public function label(Mix $before): string
    {
        return 'Remove '.Naming::clips($before, $this->clips).($this->close ? ' and close the gap' : '');
    }

    public function apply(Mix $before): Mix
    {
        $byTrack = [];
        foreach (array_unique($this->clips) as $id) {
            $byTrack[$before->trackOf($id)->id][] = $id;
        }
        foreach ($byTrack as $track => $ids) {
            $before = $before->withTrack($this->without($before->track((string) $track), $ids));
        }

        return $before;
    }

    /** @param list<string> $ids */
    private function without(Track $track, array $ids): Track
    {
        if (!$this->close) {
            return $track->withoutClip(...$ids);
        }
        foreach (array_reverse($track->inOrder()) as $clip) {
            if (\in_array($clip->id, $ids, true)) {
                $track = $track->withoutClip($clip->id);
                $following = array_filter(array_column($track->inOrder(), 'at'), static fn (int $at): bool => $at > $clip->at);
                $gap = min($clip->length, [] === $following ? $clip->length : min($following) - $clip->at);
                $track = Ripple::later($track, $clip->at + 1, -$gap);
            }
        }

        return $track;
    }
}
