<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/**
 * What a pan does to a stereo track: how much of each input reaches each output. At the centre nothing changes.
 * Source: W3C Web Audio API, StereoPannerNode, the equations for stereo input (equal power).
 */
final class Pan
{
    /** @param float $pan −1 left … 1 right */
    public static function at(float $pan): Routing
    {
        if (0.0 === $pan) {
            return Routing::straight();
        }
        if ($pan < 0.0) {
            $x = ($pan + 1.0) * \M_PI / 2.0;

            return new Routing(1.0, cos($x), 0.0, sin($x));
        }
        $x = $pan * \M_PI / 2.0;

        return new Routing(cos($x), 0.0, sin($x), 1.0);
    }
}
