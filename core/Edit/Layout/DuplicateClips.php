<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\FreshIds;
use Wattage\Core\Timeline\Mix;

/** Makes copies of clips, levels included, on the same tracks. */
final readonly class DuplicateClips implements Edit
{
    /**
     * @param non-empty-list<string> $clips
     * @param ?int $later samples between a clip and its copy; null puts the copies right after the last of the clips
     */
    public function __construct(private array $clips, private ?int $later = null)
    {
    }

    public function label(Mix $before): string
    {
        return 'Duplicate '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        $ids = new FreshIds($before);
        $clips = array_map($before->clip(...), array_values(array_unique($this->clips)));
        $later = $this->later ?? max(array_map(static fn (Clip $c): int => $c->end(), $clips)) - min(array_map(static fn (Clip $c): int => $c->at, $clips));
        $copies = [];
        foreach ($clips as $clip) {
            $copies[$before->trackOf($clip->id)->id][] = $clip->called($ids->after($clip->id))->movedTo($clip->at + $later);
        }

        return array_reduce(array_keys($copies), static fn (Mix $mix, string|int $track): Mix => $mix->withTrack($mix->track((string) $track)->withClip(...$copies[$track])), $before);
    }
}
