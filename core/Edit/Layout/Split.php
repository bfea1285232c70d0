<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** Splits clips at given moments. */
final readonly class Split implements Edit
{
    public const MOST_CUTS = 2000;
    private const NAMED = 5;

    /** @param non-empty-list<array{string, int}> $cuts clip and timeline samples, MOST_CUTS at most */
    public function __construct(private array $cuts)
    {
    }

    public function label(Mix $before): string
    {
        $clips = array_values(array_unique(array_column($this->cuts, 0)));
        $moments = array_values(array_unique(array_column($this->cuts, 1)));
        $where = \count($moments) > self::NAMED ? \count($moments).' moments' : implode(' and ', array_map(static fn (int $at): string => Timecode::clock($at, $before->rate), $moments));

        return 'Split '.Naming::clips($before, $clips)." at {$where}";
    }

    public function apply(Mix $before): Mix
    {
        $cuts = [];
        foreach ($this->cuts as [$clip, $at]) {
            $cuts[$before->trackOf($clip)->id][$clip][] = $at;
        }
        $knife = new Knife($before);
        $after = $before;
        foreach ($cuts as $track => $byClip) {
            $after = $after->withTrack($knife->along($after->track((string) $track), $byClip));
        }

        return $after;
    }
}
