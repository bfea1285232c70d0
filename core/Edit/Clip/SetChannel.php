<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Side;

/** Sets the gain or the mute of one channel of an opened clip. */
final readonly class SetChannel implements Edit
{
    public function __construct(private string $clip, private Side $side, private ?Decibels $gain = null, private ?bool $muted = null)
    {
    }

    public function label(Mix $before): string
    {
        $name = "{$before->clip($this->clip)->name}, {$this->side->value}";
        if (null !== $this->muted) {
            return ($this->muted ? 'Mute ' : 'Unmute ').$name;
        }

        return "Set {$name} to ".($this->gain ?? Decibels::unchanged())->format();
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        $old = $clip->channels->of($this->side);
        $new = $old->withGain($this->gain ?? $old->gain)->withMuted($this->muted ?? $old->muted);

        return $new == $old ? $before : $before->withClip($clip->withChannels($clip->channels->with($this->side, $new)));
    }
}
