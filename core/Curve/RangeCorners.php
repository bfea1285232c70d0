<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Time\Span;

/** Where the two ramps of a change to a range begin and end. */
final class RangeCorners
{
    /** Samples; anything shorter has no room for its corners. */
    public const SHORTEST = 4;

    /**
     * @param Span $inner the selected range, within the bounds
     * @param int $ramp samples, shortened where there is less room
     *
     * @return array{int, int, int, int} first ramp from and to, second ramp from and to
     */
    public static function of(Span $inner, Span $bounds, int $ramp, bool $inside): array
    {
        if (!$inside) {
            return [max($inner->from - $ramp, $bounds->from), $inner->from, $inner->to, min($inner->to + $ramp, $bounds->to)];
        }
        $ramp = min($ramp, intdiv($inner->length() - 1, 2));

        return [$inner->from, $inner->from + $ramp, $inner->to - $ramp, $inner->to];
    }
}
