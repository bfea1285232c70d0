<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Edit\Chosen;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;

/** Gives several keyframes the same level or the same ramp, or both. */
final readonly class SetKeyframes implements Edit
{
    /** @param non-empty-list<Chosen> $chosen */
    public function __construct(private array $chosen, private ?Decibels $level = null, private ?Ramp $ramp = null)
    {
    }

    public function label(Mix $before): string
    {
        $to = implode(', ', array_filter([$this->level?->format(), null === $this->ramp ? null : "{$this->ramp->kind->value} ramps"]));

        return 'Set '.Naming::keyframes($before, $this->chosen)." to {$to}";
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        foreach ($this->chosen as $chosen) {
            $placed = $chosen->wire->in($after);
            $curve = $placed->curve();
            $keyframes = $curve->keyframes;
            foreach ($chosen->keyframes as $position) {
                $i = $curve->indexOf($position);
                $keyframes[$i] = $keyframes[$i]->withLevel($this->level ?? $keyframes[$i]->level)->withRamp($this->ramp ?? $keyframes[$i]->ramp);
            }
            $after = $keyframes == $curve->keyframes ? $after : $placed->with(Curve::of(array_values($keyframes)));
        }

        return $after;
    }
}
