<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * Brings a range of a curve to one level, with smooth ramps; the keyframes in it go. Outside range and ramps it is exactly the
 * old curve. To and from silence the ramps are straight in gain, as all such ramps are.
 */
final readonly class RangeSet
{
    /**
     * @param int $ramp length of each ramp in samples, ≥ 0; shortened where $bounds leaves less room
     * @param bool $inside whether the ramps lie within the range instead of around it
     */
    public function __construct(private Decibels $level, private int $ramp, private bool $inside = false)
    {
    }

    /**
     * @param Span $range what is selected, in the curve's time
     * @param Span $bounds what of the curve can be heard
     *
     * @throws InvalidCurve when the range misses the bounds or the level is too high
     */
    public function of(Curve $curve, Span $range, Span $bounds): Curve
    {
        $inner = $range->within($bounds) ?? throw InvalidCurve::outside();
        $inner->length() >= RangeCorners::SHORTEST || throw InvalidCurve::tooShort();
        $this->level->db <= Decibels::MAX_CLIP || throw InvalidCurve::tooLoud($this->level);
        [$start, $top, $bottom, $end] = RangeCorners::of($inner, $bounds, $this->ramp, $this->inside);
        if ($start === $top && $start > 0) {
            $start = $top - 1; // no room for a ramp: the level steps
        }
        if ($end === $bottom) {
            --$bottom;
        }
        $framed = $curve->withKeyframeAt($start)->withKeyframeAt($end);
        $keyframes = [];
        foreach ($framed->keyframes as $keyframe) {
            if ($keyframe->position < $start || ($keyframe->position === $start && $start < $top)) {
                $keyframes[] = $keyframe->position === $start ? $keyframe->withRamp($top - $start > 1 ? Ramp::smooth() : Ramp::hold()) : $keyframe;
            }
        }
        $keyframes[] = new Keyframe($top, $this->level, Ramp::line());
        $keyframes[] = new Keyframe($bottom, $this->level, $end - $bottom > 1 ? Ramp::smooth() : Ramp::hold());
        foreach ($framed->keyframes as $keyframe) {
            if ($keyframe->position > $end || ($keyframe->position === $end && $end > $bottom)) {
                $keyframes[] = $keyframe;
            }
        }

        return Curve::of($keyframes);
    }
}
