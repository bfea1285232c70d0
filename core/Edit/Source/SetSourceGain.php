<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Source;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Side;
use Wattage\Core\Timeline\Source;

/** Sets the gain of a source, heard in every clip cut from it. */
final readonly class SetSourceGain implements Edit
{
    /**
     * @param Source $source as the caller knows it; taken into the mix when it is not there yet
     * @param ?Side $side one channel, where the two are not linked; null for both
     */
    public function __construct(private Source $source, private Decibels $gain, private ?Side $side = null)
    {
    }

    public function label(Mix $before): string
    {
        $side = null === $this->side ? '' : ", {$this->side->value},";

        return "Set source {$this->source->name}{$side} to {$this->gain->format()}";
    }

    public function apply(Mix $before): Mix
    {
        $old = $before->sources[$this->source->id] ?? $this->source;
        null !== $this->side && null === $old->right && throw InvalidEdit::channelsAreLinked($old->name);
        $new = match (true) {
            Side::Right === $this->side => $old->withRight($this->gain),
            null === $this->side && null !== $old->right => $old->withGain($this->gain)->withRight($this->gain),
            default => $old->withGain($this->gain),
        };

        return ($before->sources[$old->id] ?? null) == $new ? $before : $before->withSource($new);
    }
}
