<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Problem;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Applies edits under the rules that hold for all of them. */
final class Change
{
    /**
     * @return Mix the very same mix when nothing changes
     *
     * @throws Problem also when it would change the clips of a locked track, or put a clip wholly over another
     */
    public static function by(Edit $edit, Mix $before): Mix
    {
        $after = $edit->apply($before);
        if ($edit instanceof WholeMix) {
            // Another state as a whole, as when a version is taken up: what was locked in this one does not bind it.
            $after->refuseTooManyPoints();

            return $after;
        }
        foreach ($before->tracks as $id => $track) {
            if ($track->locked && ($after->tracks[$id]->clips ?? null) !== $track->clips) {
                throw InvalidEdit::trackIsLocked($track->name);
            }
        }
        foreach ($after->tracks as $id => $track) {
            $old = $before->tracks[$id] ?? null;
            if ($track->clips !== ($old->clips ?? [])) {
                self::refuseCovering($track, $old);
            }
        }

        $after === $before || $after->refuseTooManyPoints();

        return $after;
    }

    private static function refuseCovering(Track $track, ?Track $old): void
    {
        $known = $old?->covered() ?? [];
        foreach (array_diff_key($track->covered(), $known) as $id => $over) {
            throw InvalidEdit::coversAnother($track->clips[$id]->name, $over->name, $track->name);
        }
    }
}
