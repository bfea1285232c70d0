<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
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
        $placed = $this->wire->in($before);
        $time = Timecode::clock(max(0, $this->at ?? $this->keyframe - $placed->ahead()), $before->rate);
        $level = null === $this->level ? '' : " to {$this->level->format()}";

        return 'Set keyframe of '.$placed->name()." at {$time}{$level}";
    }

    public function apply(Mix $before): Mix
    {
        $placed = $this->wire->in($before);
        $curve = $placed->curve();
        $i = $curve->indexOf($this->keyframe);
        $old = $curve->keyframes[$i];
        $new = $old->withLevel($this->level ?? $old->level)->withRamp($this->ramp ?? $old->ramp);
        if (null !== $this->at) {
            $position = KeyframeTime::inside($placed, $this->at);
            $position !== $old->position && $curve->hasKeyframeAt($position) && throw InvalidCurve::taken($position);
            $earliest = isset($curve->keyframes[$i - 1]) ? $curve->keyframes[$i - 1]->position : -1;
            $latest = isset($curve->keyframes[$i + 1]) ? $curve->keyframes[$i + 1]->position : \PHP_INT_MAX;
            $position > $earliest && $position < $latest || throw InvalidEdit::keyframesCross();
            $new = $new->at($position);
        }

        return $new == $old ? $before : $placed->with($curve->replacing($i, $new));
    }
}
