<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Wire;

/** Gives a keyframe another time, level or ramp, or several of them. */
final readonly class SetKeyframe implements Edit
{
    /**
     * @param int $keyframe which one: its source position
     * @param ?int $at new timeline position, between its neighbours; null keeps it
     */
    public function __construct(private Wire $wire, private int $keyframe, private ?int $at = null, private ?Decibels $level = null, private ?Ramp $ramp = null)
    {
    }

    public function label(Mix $before): string
    {
        $clip = $before->clip($this->wire->clip);
        $time = Timecode::clock(max(0, $this->at ?? $clip->toTimeline($this->keyframe)), $before->rate);
        $level = null === $this->level ? '' : " to {$this->level->format()}";

        return 'Set keyframe of '.Naming::wire($before, $this->wire)." at {$time}{$level}";
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->wire->clip);
        $curve = $this->wire->curveOf($clip);
        $i = $curve->indexOf($this->keyframe);
        $old = $curve->keyframes[$i];
        $new = $old->withLevel($this->level ?? $old->level)->withRamp($this->ramp ?? $old->ramp);
        if (null !== $this->at) {
            $position = KeyframeTime::inside($clip, $this->at);
            $position !== $old->position && $curve->hasKeyframeAt($position) && throw InvalidCurve::taken($position);
            $earliest = isset($curve->keyframes[$i - 1]) ? $curve->keyframes[$i - 1]->position : -1;
            $latest = isset($curve->keyframes[$i + 1]) ? $curve->keyframes[$i + 1]->position : \PHP_INT_MAX;
            $position > $earliest && $position < $latest || throw InvalidEdit::keyframesCross();
            $new = $new->at($position);
        }

        return $new == $old ? $before : $before->withClip($this->wire->putInto($clip, $curve->replacing($i, $new)));
    }
}
