<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** How loud a clip is at each moment: source gain, clip gain and curve in one. The renderer and the player both follow it. */
final class GainSchedule
{
    /** @return non-empty-list<Stretch> in source time, covering the heard part of the clip */
    public static function ofClip(Mix $mix, Clip $clip): array
    {
        $gain = $clip->gain->plus($mix->source($clip->source)->gain);

        return array_map(static fn (Stretch $stretch): Stretch => $stretch->raised($gain), $clip->curve->stretchesWithin($clip->heard()));
    }
}
