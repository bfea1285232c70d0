<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;

/** Gives a keyframe another time, level or ramp, or several of them. */
final readonly class SetKeyframe implements Edit
{
    /**
     * @param int $keyframe which one: its source position
     * @param ?int $at new timeline position; null keeps it
     */
    public function __construct(private string $clip, private int $keyframe, private ?int $at = null, private ?Decibels $level = null, private ?Ramp $ramp = null)
    {
    }

    public function label(Mix $before): string
    {
        $clip = $before->clip($this->clip);
        $time = Timecode::clock(max(0, $this->at ?? $this->keyframe - $clip->in + $clip->at), $before->rate);

        return null === $this->level ? "Set keyframe of {$clip->name} at {$time}" : "Set keyframe of {$clip->name} at {$time} to {$this->level->format()}";
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        $i = $clip->curve->indexOf($this->keyframe);
        $old = $clip->curve->keyframes[$i];
        $new = $old->withLevel($this->level ?? $old->level)->withRamp($this->ramp ?? $old->ramp);
        if (null !== $this->at) {
            $position = KeyframeTime::inside($clip, $this->at);
            $position !== $old->position && $clip->curve->hasKeyframeAt($position) && throw InvalidCurve::taken($position);
            $new = $new->at($position);
        }

        return $new == $old ? $before : $before->withClip($clip->withCurve($clip->curve->replacing($i, $new)));
    }
}
