<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/** Two curves as one that has both of their levels. Exact where one of them is flat, else within a tolerance. */
final class Sum
{
    /** dB, far below what anybody hears. */
    public const TOLERANCE = 0.05;

    /** Samples between the points that are looked at: 5 ms at 48 kHz. */
    private const GRID = 240;

    /** Level that stands for silence while two are added, dB. */
    private const SILENT = -120.0;

    public static function of(Curve $a, Curve $b, Span $span): Curve
    {
        if ($a->isFlat() || $b->isFlat()) {
            return $a->isFlat() ? $b : $a;
        }
        $a = $a->within($span->from, $span->to);
        $b = $b->within($span->from, $span->to);
        $positions = [$span->from, $span->to];
        foreach ([$a, $b] as $curve) {
            foreach ($curve->keyframes as $i => $keyframe) {
                $positions[] = $keyframe->position;
                $next = $curve->keyframes[$i + 1] ?? null;
                // A held level steps just before the next keyframe.
                if (null !== $next && RampKind::Hold === $keyframe->ramp->kind && $next->position > $keyframe->position + 1) {
                    $positions[] = $next->position - 1;
                }
            }
        }
        $first = min($positions);
        $last = max($positions);
        for ($at = $first; $at < $last; $at += self::GRID) {
            $positions[] = $at;
        }
        $positions = array_values(array_unique($positions));
        sort($positions);
        $points = array_map(static fn (int $at): array => [$at, max(self::SILENT, $a->levelAt($at)->db + $b->levelAt($at)->db)], $positions);

        return Curve::of(array_map(
            static fn (array $point): Keyframe => new Keyframe($point[0], $point[1] <= self::SILENT ? Decibels::silence() : Decibels::of(min(Decibels::MAX_CLIP, $point[1])), Ramp::line()),
            Thinning::of($points, self::TOLERANCE),
        ));
    }
}
