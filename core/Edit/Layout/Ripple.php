<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\OnTracks;
use Wattage\Core\Time\TimeMap;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Retiming;
use Wattage\Core\Timeline\Track;

/** How all edits that shift time move clips and, by the same map, everything else. */
final class Ripple
{
    /**
     * The clips that come later.
     *
     * @param list<string> $but clips that stay
     */
    public static function clips(Track $track, TimeMap $map, array $but = []): Track
    {
        $moved = [];
        foreach ($track->clips as $clip) {
            if ($clip->at >= $map->after() && !\in_array($clip->id, $but, true)) {
                $moved[] = $clip->movedTo(max(0, $clip->at + $map->shift()));
            }
        }

        return 0 === $map->shift() || [] === $moved ? $track : $track->withClip(...$moved);
    }

    /** All but the clips: of some tracks, or of all of them and the programme. */
    public static function rest(Mix $mix, TimeMap $map, OnTracks $tracks): Mix
    {
        $retiming = new Retiming($map);
        $mix = $retiming->tracks($mix, array_column($tracks->of($mix), 'id'));

        return $tracks->areAll() ? $retiming->programme($mix) : $mix;
    }

    /** Clips that come later on one track, and what that track does over time. */
    public static function track(Mix $mix, string $track, TimeMap $map, string ...$but): Mix
    {
        if (0 === $map->shift()) {
            return $mix;
        }
        $mix = $mix->withTrack(self::clips($mix->track($track), $map, array_values($but)));

        return (new Retiming($map))->tracks($mix, [$track]);
    }
}
