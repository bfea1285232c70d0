<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Clip;

/** Where keyframes may stand: within the part of the source that is heard, its last edge included. */
final class KeyframeTime
{
    /** @return int source samples. @throws InvalidEdit */
    public static function inside(Clip $clip, int $at): int
    {
        if ($at < $clip->at || $at > $clip->at + $clip->length) {
            throw InvalidEdit::keyframeOutsideClip($clip->name);
        }

        return $clip->toSource($at);
    }
}
