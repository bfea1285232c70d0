<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Curve\Thinning;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Timeline\Clip;

/** The curve of a clip with a correction on top, in as few keyframes as do. */
final class CorrectedCurve
{
    /** At most one keyframe in so many seconds on average: for more, the tolerance gives. */
    private const SECONDS_PER_KEYFRAME = 2.0;

    /** Where an old ramp is bent, so many points of it stay. */
    private const POINTS_PER_BEND = 4;

    /** Keyframes that a pause may take besides. */
    private const KEYFRAMES_PER_PAUSE = 4;

    /** dB from one 100 ms to the next that only the edge of a pause takes. */
    private const STEP = 1.8;

    /**
     * @param array<int, float> $correction dB for every 100 ms from the start of the clip
     * @param float $tolerance dB that the keyframes may be off, where that takes no more than one in two seconds
     * @param array<int, float> $limits dB that each 100 ms may be lifted by: these hold whatever the tolerance
     */
    public static function of(Clip $clip, array $correction, int $rate, float $tolerance, array $limits = []): Curve
    {
        $frames = intdiv($rate, TrackPower::TENTHS_PER_SECOND);
        $points = [];
        foreach ($correction as $k => $db) {
            $points[] = [min($clip->in + $k * $frames + intdiv($frames, 2), $clip->in + $clip->length - 1), $db];
        }
        $few = max(2, (int) (\count($points) / TrackPower::TENTHS_PER_SECOND / self::SECONDS_PER_KEYFRAME)) + self::KEYFRAMES_PER_PAUSE * self::steps($correction);
        do {
            $kept = Thinning::of($points, $tolerance);
            $tolerance *= 1.25;
        } while (\count($kept) > $few);
        $kept = self::beneath($kept, $points, $limits);
        $thin = Curve::of(array_map(static fn (array $p): Keyframe => new Keyframe($p[0], Decibels::of(round($p[1], 2)), Ramp::line()), $kept));
        $positions = array_column($thin->keyframes, 'position');
        foreach ($clip->curve->keyframes as $i => $keyframe) {
            $positions[] = $keyframe->position;
            $next = $clip->curve->keyframes[$i + 1] ?? null;
            for ($n = 1; null !== $next && RampKind::Smooth === $keyframe->ramp->kind && $n < self::POINTS_PER_BEND; ++$n) {
                $positions[] = $keyframe->position + intdiv(($next->position - $keyframe->position) * $n, self::POINTS_PER_BEND);
            }
        }
        $positions = array_unique($positions);
        sort($positions);
        $keyframes = [];
        foreach ($positions as $at) {
            $level = $clip->curve->levelAt($at)->plus($thin->levelAt($at));
            $kind = $clip->curve->hasKeyframeAt($at) ? $clip->curve->keyframes[$clip->curve->indexOf($at)]->ramp->kind : RampKind::Line;
            $keyframes[] = new Keyframe($at, $level->db > Decibels::MAX_CLIP ? Decibels::of(Decibels::MAX_CLIP) : $level, RampKind::Smooth === $kind ? Ramp::line() : Ramp::of($kind));
        }

        return Curve::of($keyframes);
    }

    /**
     * How often a correction jumps, as it does at the edges of pauses.
     *
     * @param array<int, float> $correction
     */
    private static function steps(array $correction): int
    {
        $steps = 0;
        for ($k = 1, $n = \count($correction); $k < $n; ++$k) {
            $steps += abs($correction[$k] - $correction[$k - 1]) > self::STEP ? 1 : 0;
        }

        return $steps;
    }

    /**
     * Thinning may leave a line above what a moment may be lifted by: then both its ends come down.
     *
     * @param list<array{int, float}> $kept
     * @param list<array{int, float}> $points at every 100 ms
     * @param array<int, float> $limits
     *
     * @return list<array{int, float}>
     */
    private static function beneath(array $kept, array $points, array $limits): array
    {
        [$at, $levels] = [array_column($kept, 0), array_column($kept, 1)];
        $after = 0;
        foreach ([] === $kept ? [] : $limits as $k => $limit) {
            $moment = $points[$k][0] ?? null;
            if (null === $moment) {
                break;
            }
            while ($after < \count($at) - 1 && $at[$after] < $moment) {
                ++$after;
            }
            $before = max(0, $after - 1);
            $way = $at[$after] - $at[$before];
            $part = $way > 0 ? max(0.0, min(1.0, ($moment - $at[$before]) / $way)) : 0.0;
            $over = $levels[$before] + $part * ($levels[$after] - $levels[$before]) - $limit;
            if ($over > 0.0) {
                $levels[$before] -= $over;
                $levels[$after] -= $before === $after ? 0.0 : $over;
            }
        }

        return array_map(static fn (int $at, float $level): array => [$at, $level], $at, $levels);
    }
}
