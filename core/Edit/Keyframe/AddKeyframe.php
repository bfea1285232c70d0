<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Wire;

/** Adds a keyframe to a wire; without a level of its own it changes nothing that is heard. */
final readonly class AddKeyframe implements Edit
{
    /** @param int $at timeline samples, within the clip */
    public function __construct(private Wire $wire, private int $at, private ?Decibels $level = null)
    {
    }

    public function label(Mix $before): string
    {
        return 'Add keyframe to '.$this->wire->in($before)->name().' at '.Timecode::clock($this->at, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        $placed = $this->wire->in($before);
        $old = $placed->curve();
        $position = KeyframeTime::inside($placed, $this->at);
        $curve = $old->withKeyframeAt($position);
        if (null !== $this->level) {
            $i = $curve->indexOf($position);
            $curve = $curve->replacing($i, $curve->keyframes[$i]->withLevel($this->level));
        }

        return $curve === $old ? $before : $placed->with($curve);
    }
}
