<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * The smallest dip there is: down to one point and up again, straight in dB; or, where a loud moment lasts, down, along and up. Laid over a curve that already moves, it is added
 * to it; outside it the curve is exactly as it was.
 */
final readonly class Notch
{
    /**
     * @param int $at its lowest point, in the curve's time
     * @param float $by difference there in dB, finite
     * @param int $before samples from its start to the point, > 0
     * @param int $after samples from the point, or from where it is held to, to its end, > 0
     * @param int $hold samples that it stays down, ≥ 0
     */
    public function __construct(public int $at, public float $by, public int $before, public int $after, public int $hold = 0)
    {
    }

    /** @param Span $bounds what of the curve can be heard; the notch is cut off there */
    public function of(Curve $curve, Span $bounds): Curve
    {
        $at = min(max($this->at, $bounds->from), $bounds->to);
        $from = max($bounds->from, $at - $this->before);
        $held = min($bounds->to, $at + $this->hold);
        $to = min($bounds->to, $held + $this->after);
        $curve = $curve->withKeyframeAt($from)->withKeyframeAt($at)->withKeyframeAt($held)->withKeyframeAt($to);
        $keyframes = [];
        foreach ($curve->keyframes as $i => $keyframe) {
            $share = $this->shareAt($keyframe->position);
            $next = $curve->keyframes[$i + 1] ?? null;
            if (null !== $next && $keyframe->position >= $from && $next->position <= $to && RampKind::Smooth === $keyframe->ramp->kind) {
                $keyframe = $keyframe->withRamp($keyframe->ramp->tiltedBy($this->by * ($this->shareAt($next->position) - $share)));
            } elseif (null !== $next && $keyframe->position >= $from && $next->position <= $to && RampKind::Hold === $keyframe->ramp->kind && $next->level->equals($keyframe->level)) {
                $keyframe = $keyframe->withRamp(Ramp::line());
            }
            $keyframes[] = 0.0 === $share ? $keyframe : $keyframe->withLevel($keyframe->level->plus(Decibels::of($this->by * $share)));
        }

        return Curve::of($keyframes);
    }

    /** @return float what it adds at a position, dB ≤ 0 for a notch that lowers */
    public function differenceAt(int $position): float
    {
        return $this->by * $this->shareAt($position);
    }

    private function shareAt(int $position): float
    {
        $away = $position < $this->at ? ($this->at - $position) / $this->before : max(0, $position - $this->at - $this->hold) / $this->after;

        return max(0.0, 1.0 - $away);
    }
}
