<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * Two curves as one that has both of their levels. Where the sum is a shape that a ramp can have, it is exact: straight with straight,
 * anything with what stays, an S with the same S or with a slope. Elsewhere it is a row of lines within a tolerance.
 */
final class Sum
{
    /** dB, far below what anybody hears. */
    private const TOLERANCE = 0.02;

    /** Points that are looked at where the sum is no ramp, so many on a short piece, and at least every 5 ms at 48 kHz on a long one. */
    private const POINTS = 128;
    private const GRID = 240;

    /** Level that stands for silence while two are added, dB. */
    private const SILENT = -120.0;

    /** @param Span $span the part that is wanted where both move; outside it stays as at its ends */
    public static function of(Curve $a, Curve $b, Span $span): Curve
    {
        if ($a->isFlat() || $b->isFlat()) {
            return $a->isFlat() ? $b : $a;
        }
        $a = $a->within($span->from, $span->to);
        $b = $b->within($span->from, $span->to);
        $positions = self::positions($a, $b);
        $a = $a->withKeyframesAt($positions)->keyframes;
        $b = $b->withKeyframesAt($positions)->keyframes;
        $sum = [];
        foreach ($a as $i => $keyframe) {
            $level = self::level($keyframe->level->db + $b[$i]->level->db);
            $nextOfA = $a[$i + 1] ?? null;
            $nextOfB = $b[$i + 1] ?? null;
            if (null === $nextOfA || null === $nextOfB) {
                $sum[] = new Keyframe($keyframe->position, $level, Ramp::line());
                continue;
            }
            $ramp = self::ramp($keyframe, $nextOfA, $b[$i], $nextOfB);
            $lines = null === $ramp ? self::lines(Curve::of([$keyframe, $nextOfA]), Curve::of([$b[$i], $nextOfB])) : [new Keyframe($keyframe->position, $level, $ramp)];
            array_push($sum, ...$lines);
        }

        return Curve::of($sum);
    }

    /** @return list<int> where either has a keyframe, and where a held level steps: one sample before the next */
    private static function positions(Curve $a, Curve $b): array
    {
        $positions = [];
        foreach ([$a, $b] as $curve) {
            foreach ($curve->keyframes as $i => $keyframe) {
                $positions[$keyframe->position] = true;
                $next = $curve->keyframes[$i + 1] ?? null;
                if (null !== $next && RampKind::Hold === $keyframe->ramp->kind) {
                    $positions[$next->position - 1] = true;
                }
            }
        }
        ksort($positions);

        return array_keys($positions);
    }

    /** The ramp that both together have; null where none does. */
    private static function ramp(Keyframe $a, Keyframe $afterA, Keyframe $b, Keyframe $afterB): ?Ramp
    {
        if (1 === $afterA->position - $a->position) {
            return Ramp::hold();
        }
        if (self::stays($b, $afterB)) {
            return self::touchesSilence($b, $afterB) ? Ramp::line() : $a->ramp;
        }
        if (self::stays($a, $afterA)) {
            return self::touchesSilence($a, $afterA) ? Ramp::line() : $b->ramp;
        }
        if (self::touchesSilence($a, $afterA) || self::touchesSilence($b, $afterB)) {
            return null;
        }

        return match ([$a->ramp->kind, $b->ramp->kind]) {
            [RampKind::Line, RampKind::Line] => Ramp::line(),
            [RampKind::Smooth, RampKind::Line] => $a->ramp->tiltedBy($afterB->level->db - $b->level->db),
            [RampKind::Line, RampKind::Smooth] => $b->ramp->tiltedBy($afterA->level->db - $a->level->db),
            [RampKind::Smooth, RampKind::Smooth] => $a->ramp->whole() == $b->ramp->whole() && self::sameWindow($a->ramp, $b->ramp) ? $a->ramp->tiltedBy($b->ramp->tilt) : null,
            default => null,
        };
    }

    private static function sameWindow(Ramp $a, Ramp $b): bool
    {
        return abs($a->windowFrom - $b->windowFrom) < 1e-9 && abs($a->windowTo - $b->windowTo) < 1e-9;
    }

    private static function stays(Keyframe $keyframe, Keyframe $next): bool
    {
        return RampKind::Hold === $keyframe->ramp->kind || ($keyframe->level->db === $next->level->db && 0.0 === $keyframe->ramp->tilt);
    }

    private static function touchesSilence(Keyframe $keyframe, Keyframe $next): bool
    {
        return $keyframe->level->isSilence() || $next->level->isSilence();
    }

    /** @return list<Keyframe> the sum over one piece as lines, without its end */
    private static function lines(Curve $a, Curve $b): array
    {
        [$from, $to] = [$a->keyframes[0]->position, $a->keyframes[1]->position];
        $positions = [...range($from, $to, max(1, min(self::GRID, intdiv($to - $from, self::POINTS)))), $to];
        $positions = array_values(array_unique($positions));
        $points = array_map(static fn (int $at, float $one, float $other): array => [$at, max(self::SILENT, $one + $other)], $positions, $a->levelsAt($positions), $b->levelsAt($positions));
        $kept = \array_slice(Thinning::of($points, self::TOLERANCE), 0, -1);

        return array_map(static fn (array $point): Keyframe => new Keyframe($point[0], self::level($point[1]), Ramp::line()), $kept);
    }

    private static function level(float $db): Decibels
    {
        return $db <= self::SILENT ? Decibels::silence() : Decibels::of(min(Decibels::MAX_CLIP, $db));
    }
}
