<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Closure;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * Lowers or lifts a range of a curve by a difference, with ramps: the dip.
 *
 * Inside the range the result is the old curve plus the difference, with every old keyframe kept; outside range and ramps
 * it is exactly the old curve. The ramps are smooth wherever the old curve under them is straight, and straight where it is
 * already bent, because the sum of two different S shapes would be neither. Both choices come out the same when the opposite
 * change is made afterwards, so that +d and then −d restore the curve.
 */
final readonly class RangeChange
{
    /**
     * @param float $by difference in dB, finite
     * @param int $ramp length of each ramp in samples, ≥ 0; shortened where $bounds leaves less room
     * @param bool $inside whether the ramps lie within the range instead of around it
     */
    public function __construct(private float $by, private int $ramp, private bool $inside = false)
    {
    }

    /**
     * @param Span $range what is selected, in the curve's time
     * @param Span $bounds what of the curve can be heard: the clip's part of its source, or the timeline
     *
     * @throws InvalidCurve when the range misses the bounds or a keyframe would rise above +24 dB
     */
    public function of(Curve $curve, Span $range, Span $bounds): Curve
    {
        $inner = $range->within($bounds) ?? throw InvalidCurve::outside();
        if ($inner->length() < RangeCorners::SHORTEST) {
            throw InvalidCurve::tooShort();
        }
        if (0.0 === $this->by) {
            return $curve;
        }
        [$start, $top, $bottom, $end] = RangeCorners::of($inner, $bounds, $this->ramp, $this->inside);
        if ($start === $top && $start > 0) {
            $curve = $this->steppedAt($curve, $start);
        }
        $curve = $curve->withKeyframeAt($start)->withKeyframeAt($top);
        if ($end === $bottom) {
            $curve = $this->steppedAt($curve, $end);
            --$bottom;
        }
        $curve = $curve->withKeyframeAt($bottom)->withKeyframeAt($end);

        $keyframes = $this->withoutHolds($this->withoutHolds($curve->keyframes, $start, $top), $bottom, $end);
        $keyframes = $this->sloped($keyframes, $start, $top, static fn (float $up): float => $up);
        $keyframes = $this->raised($keyframes, $top, $bottom);
        $keyframes = $this->sloped($keyframes, $bottom, $end, static fn (float $up): float => 1.0 - $up);
        foreach ($keyframes as $keyframe) {
            $keyframe->level->db <= Decibels::MAX_CLIP || $keyframe->position < $start || $keyframe->position > $end || throw InvalidCurve::tooLoud($keyframe->level);
        }

        return Curve::of($keyframes);
    }

    /** Lets the level step at a position: nothing before it moves with what comes after. */
    private function steppedAt(Curve $curve, int $position): Curve
    {
        $curve = $curve->withKeyframeAt($position)->withKeyframeAt($position - 1);
        $i = $curve->indexOf($position - 1);

        return $curve->replacing($i, $curve->keyframes[$i]->withRamp(Ramp::hold()));
    }

    /**
     * @param list<Keyframe> $keyframes
     *
     * @return list<Keyframe> those strictly between the ramps moved by the whole difference; the ramps see to their own ends
     */
    private function raised(array $keyframes, int $top, int $bottom): array
    {
        $by = Decibels::of($this->by);

        return array_map(static fn (Keyframe $k): Keyframe => $k->position <= $top || $k->position >= $bottom ? $k : $k->withLevel($k->level->plus($by)), $keyframes);
    }

    /**
     * Adds one of the two ramps over [$from, $to], both ends included.
     *
     * @param list<Keyframe> $keyframes
     * @param Closure(float): float $share from the way up the S, 0…1, to the part of the difference reached there
     *
     * @return list<Keyframe>
     */
    private function sloped(array $keyframes, int $from, int $to, Closure $share): array
    {
        $zone = array_keys(array_filter($keyframes, static fn (Keyframe $k): bool => $k->position >= $from && $k->position <= $to));
        $along = static fn (int $i): float => $from === $to ? 0.0 : ($keyframes[$i]->position - $from) / ($to - $from);
        $smooth = $this->isSmoothOver($keyframes, $zone, $along);
        $result = $keyframes;
        foreach ($zone as $n => $i) {
            $added = $this->addedAt($from, $to, $along($i), $smooth, $share);
            $result[$i] = $result[$i]->withLevel($keyframes[$i]->level->plus(Decibels::of($added)));
            if ($n < \count($zone) - 1) {
                $rise = $keyframes[$i + 1]->level->db - $keyframes[$i]->level->db;
                $straight = $smooth ? 0.0 : $this->addedAt($from, $to, $along($i + 1), false, $share) - $added;
                $result[$i] = $result[$i]->withRamp($this->sum($keyframes[$i]->ramp, $rise, $smooth, $along($i), $along($i + 1), $straight));
            }
        }

        return array_values($result);
    }

    /** @param Closure(float): float $share */
    private function addedAt(int $from, int $to, float $x, bool $smooth, Closure $share): float
    {
        if ($from === $to) {
            return $this->by; // no room for a ramp: the difference is there at once
        }

        return $this->by * $share($smooth ? Ease::at($x, 0.5, 0.5) : $x);
    }

    /**
     * @param list<Keyframe> $keyframes
     * @param list<int> $zone indices of the keyframes of one ramp
     * @param Closure(int): float $along way along the ramp of a keyframe, 0…1
     */
    private function isSmoothOver(array $keyframes, array $zone, Closure $along): bool
    {
        foreach (\array_slice($zone, 0, -1) as $i) {
            $ramp = $keyframes[$i]->ramp;
            if (RampKind::Smooth === $ramp->kind && !$this->matches($ramp, $along($i), $along($i + 1))) {
                return false;
            }
        }

        return true;
    }

    /** The ramp that is the old one plus the dip's own. */
    private function sum(Ramp $old, float $rise, bool $smooth, float $from, float $to, float $straight): Ramp
    {
        return match (true) {
            RampKind::Smooth === $old->kind => $smooth ? $old : $old->tiltedBy($straight),
            RampKind::Line === $old->kind && $smooth && is_finite($rise) => Ramp::smooth(0.5, 0.5, $from, $to, $rise),
            default => $old,
        };
    }

    private function matches(Ramp $ramp, float $from, float $to): bool
    {
        return 0.5 === $ramp->easeOut && 0.5 === $ramp->easeIn && abs($ramp->windowFrom - $from) < 1e-9 && abs($ramp->windowTo - $to) < 1e-9;
    }

    /**
     * A held level cannot slope; within a ramp it becomes a line that steps one sample before the next keyframe.
     *
     * @param list<Keyframe> $keyframes
     *
     * @return list<Keyframe>
     */
    private function withoutHolds(array $keyframes, int $from, int $to): array
    {
        $result = [];
        foreach ($keyframes as $i => $keyframe) {
            $next = $keyframes[$i + 1] ?? null;
            $sloped = null !== $next && $keyframe->position >= $from && $next->position <= $to && $next->position - $keyframe->position > 1;
            if ($sloped && RampKind::Hold === $keyframe->ramp->kind) {
                $result[] = $keyframe->withRamp(Ramp::line());
                $result[] = new Keyframe($next->position - 1, $keyframe->level, Ramp::hold());
            } else {
                $result[] = $keyframe;
            }
        }

        return $result;
    }
}
