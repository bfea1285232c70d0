<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\TimeMap;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Moves clips together in time on their tracks; with ripple, all that comes later on those tracks goes along. */
final readonly class MoveClips implements Edit
{
    /**
     * @param non-empty-list<string> $clips
     * @param int $later samples; negative is earlier
     */
    public function __construct(private array $clips, private int $later, private bool $ripple = false)
    {
    }

    public function label(Mix $before): string
    {
        return \sprintf('Move %s %s by %s', Naming::clips($before, $this->clips), $this->later < 0 ? 'earlier' : 'later', Naming::seconds($before, abs($this->later))).($this->ripple ? ', and what comes later on '.implode(', ', Naming::tracksOf($before, $this->clips)) : '');
    }

    public function apply(Mix $before): Mix
    {
        if (0 === $this->later) {
            return $before;
        }
        $first = [];
        foreach ($this->clips as $id) {
            $track = $before->trackOf($id)->id;
            $first[$track] = min($first[$track] ?? \PHP_INT_MAX, $before->clip($id)->at);
        }
        $after = $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->movedTo($clip->at + $this->later));
        foreach ($this->ripple ? $first : [] as $track => $at) {
            $after = Ripple::track($after, (string) $track, TimeMap::shifting($at, $this->later), ...$this->clips);
        }

        return $after;
    }
}
