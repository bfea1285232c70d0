<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Mix;

/** Removes clips; what is left stays where it is. */
final readonly class RemoveClips implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips)
    {
    }

    public function label(Mix $before): string
    {
        return 'Remove '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        foreach (array_unique($this->clips) as $id) {
            $before = $before->withTrack($before->trackOf($id)->withoutClip($id));
        }

        return $before;
    }
}
