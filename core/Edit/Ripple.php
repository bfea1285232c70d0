<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Track;

/** Moves what comes later on a track along, so that gaps open or close. */
final class Ripple
{
    /**
     * @param int $from timeline samples: clips that start there or later move
     * @param int $by samples; negative is earlier
     * @param list<string> $but clips that stay
     */
    public static function later(Track $track, int $from, int $by, array $but = []): Track
    {
        if (0 === $by) {
            return $track;
        }
        $moved = [];
        foreach ($track->clips as $clip) {
            if ($clip->at >= $from && !\in_array($clip->id, $but, true)) {
                $moved[] = $clip->movedTo(max(0, $clip->at + $by));
            }
        }

        return [] === $moved ? $track : $track->withClip(...$moved);
    }
}
