<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Timeline\PlacedWire;

/** Where keyframes may stand: within the part of a wire that counts, its last edge included. */
final class KeyframeTime
{
    /**
     * @param int $at timeline samples
     *
     * @return int in the curve's own time
     *
     * @throws InvalidEdit
     */
    public static function inside(PlacedWire $wire, int $at): int
    {
        $position = $at + $wire->ahead();
        $bounds = $wire->bounds();

        return $position >= $bounds->from && $position <= $bounds->to ? $position : throw InvalidEdit::keyframeOutsideClip($wire->name());
    }
}
