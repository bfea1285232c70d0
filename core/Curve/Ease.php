<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/**
 * The S of a smooth ramp: it gathers speed evenly over the ease-out, keeps it, and loses it evenly over the ease-in.
 * Both ends are flat and the curve is made of two parabolas and a straight line between them. Own definition.
 */
final class Ease
{
    /** @param float $u way along the ramp, 0…1. @return float way up, 0…1 */
    public static function at(float $u, float $easeOut, float $easeIn): float
    {
        $speed = 2.0 / (2.0 - $easeOut - $easeIn);

        return match (true) {
            $u < $easeOut => $speed * $u * $u / (2.0 * $easeOut),
            $u > 1.0 - $easeIn => 1.0 - $speed * (1.0 - $u) ** 2 / (2.0 * $easeIn),
            default => $speed * ($u - $easeOut / 2.0),
        };
    }
}
