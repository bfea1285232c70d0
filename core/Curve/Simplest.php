<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/**
 * A curve with the fewest of its own keyframes that sound alike: those go that stand on a straight line between others, and
 * those that only go along a level. Ramps that are not straight are kept as they are.
 */
final class Simplest
{
    /** Keyframes that one line may leave out; bounds the time that long straight rows take. */
    private const REACH = 512;

    /** @param float $tolerance dB by which the two may differ at any moment */
    public static function of(Curve $curve, float $tolerance): Curve
    {
        $keyframes = $curve->keyframes;
        $n = \count($keyframes);
        $first = self::runFrom($keyframes, 0, 1, $tolerance);
        $last = self::runFrom($keyframes, $n - 1, -1, $tolerance);
        if (0 === $n || $first >= $n - 1 || $last <= $first) {
            return self::level($keyframes, $tolerance) ?? self::between($keyframes, 0, max(0, $n - 1), $tolerance);
        }

        return self::between($keyframes, $first, $last, $tolerance);
    }

    /**
     * @param list<Keyframe> $keyframes
     *
     * @return ?Curve one keyframe, or none at 0 dB, where the level never moves
     */
    private static function level(array $keyframes, float $tolerance): ?Curve
    {
        if ([] === $keyframes) {
            return Curve::flat();
        }
        $levels = array_map(static fn (Keyframe $k): float => $k->level->db, $keyframes);
        if (max($levels) - min($levels) > $tolerance && max($levels) !== min($levels)) {
            return null;
        }
        foreach (\array_slice($keyframes, 0, -1) as $i => $keyframe) {
            if (!self::isStraight($keyframe, $keyframes[$i + 1])) {
                return null;
            }
        }

        return max(array_map(abs(...), $levels)) <= $tolerance ? Curve::flat() : Curve::of([$keyframes[0]->withRamp(Ramp::line())]);
    }

    /**
     * How far the level stays as it is at one end.
     *
     * @param list<Keyframe> $keyframes
     * @param 1|-1 $by
     *
     * @return int the last of the run
     */
    private static function runFrom(array $keyframes, int $i, int $by, float $tolerance): int
    {
        $start = $i;
        while (isset($keyframes[$i + $by])) {
            $piece = min($i, $i + $by);
            $isLevel = self::isStraight($keyframes[$piece], $keyframes[$piece + 1]) && self::differ($keyframes[$i + $by], $keyframes[$start]) <= $tolerance / 2.0;
            if (!$isLevel) {
                break;
            }
            $i += $by;
        }

        return $i;
    }

    /**
     * The fewest keyframes on the way from one to another; as in Thinning, with ramps that are not straight taken as they are.
     *
     * @param list<Keyframe> $keyframes
     */
    private static function between(array $keyframes, int $first, int $last, float $tolerance): Curve
    {
        $cost = [$first => 0];
        $from = [];
        for ($i = $first; $i < $last; ++$i) {
            $here = $cost[$i] + 1;
            [$low, $high] = [-\INF, \INF];
            for ($j = $i + 1, $end = min($last, $i + self::REACH); $j <= $end; ++$j) {
                $isPiece = $j === $i + 1;
                if (!$isPiece && !self::isStraight($keyframes[$j - 1], $keyframes[$j])) {
                    break;
                }
                $way = $keyframes[$j]->position - $keyframes[$i]->position;
                $rise = $keyframes[$j]->level->db - $keyframes[$i]->level->db;
                if ($isPiece || ($rise / $way >= $low && $rise / $way <= $high)) {
                    if ($here < ($cost[$j] ?? \PHP_INT_MAX)) {
                        $cost[$j] = $here;
                        $from[$j] = $i;
                    }
                }
                if (!self::isStraight($keyframes[$j - 1], $keyframes[$j])) {
                    break;
                }
                $low = max($low, ($rise - $tolerance) / $way);
                $high = min($high, ($rise + $tolerance) / $way);
                if ($low > $high) {
                    break;
                }
            }
        }
        $kept = [];
        for ($i = $last; $i > $first; $i = $before) {
            $before = $from[$i];
            $kept[] = $keyframes[$i];
            if ($i - $before > 1) {
                $keyframes[$before] = $keyframes[$before]->withRamp(Ramp::line());
            }
        }
        $kept[] = $keyframes[$first];

        return Curve::of(array_reverse($kept));
    }

    /** Whether the level goes straight in dB from one keyframe to the next, or stays. */
    private static function isStraight(Keyframe $keyframe, Keyframe $next): bool
    {
        if ($keyframe->level->isSilence() || $next->level->isSilence()) {
            return false;
        }
        $ramp = $keyframe->ramp;

        return RampKind::Line === $ramp->kind || ($keyframe->level->db === $next->level->db && 0.0 === $ramp->tilt && RampKind::Gain !== $ramp->kind);
    }

    private static function differ(Keyframe $a, Keyframe $b): float
    {
        return $a->level->db === $b->level->db ? 0.0 : abs($a->level->db - $b->level->db);
    }
}
