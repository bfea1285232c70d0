<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Thinning;
use Wattage\Core\Level\Decibels;

/** Several lanes as one: at every moment the one that is furthest down. */
final class Deepest
{
    private const TOLERANCE = 0.1;

    /**
     * @param list<Curve> $curves
     * @param int $step samples between points where more than one of them moves
     */
    public static function of(array $curves, int $step): Curve
    {
        $curves = array_values(array_filter($curves, static fn (Curve $curve): bool => !$curve->isFlat()));
        if (\count($curves) < 2) {
            return $curves[0] ?? Curve::flat();
        }
        $places = [];
        foreach ($curves as $curve) {
            $last = null;
            foreach ($curve->keyframes as $keyframe) {
                // Between two that differ there may be crossings, and ramps that are no lines.
                for ($at = $last->position ?? \PHP_INT_MAX; null !== $last && !$keyframe->level->equals($last->level) && $at < $keyframe->position; $at += $step) {
                    $places[$at] = true;
                }
                $places[$keyframe->position] = true;
                $last = $keyframe;
            }
        }
        ksort($places);
        $places = array_keys($places);
        $rows = array_map(static fn (Curve $curve): array => $curve->levelsAt($places), $curves);
        $points = array_map(static fn (int $at, int $i): array => [$at, min(array_map(static fn (array $row): float => $row[$i], $rows))], $places, array_keys($places));
        $lines = Thinning::of($points, self::TOLERANCE);

        return Curve::of(array_map(static fn (array $point): Keyframe => new Keyframe($point[0], Decibels::of($point[1]), Ramp::line()), $lines));
    }
}
