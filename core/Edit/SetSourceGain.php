<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Sets the gain of a source, heard in every clip cut from it. */
final readonly class SetSourceGain implements Edit
{
    /** @param Source $source as the caller knows it; taken into the mix when it is not there yet */
    public function __construct(private Source $source, private Decibels $gain)
    {
    }

    public function label(Mix $before): string
    {
        return "Set source {$this->source->name} to {$this->gain->format()}";
    }

    public function apply(Mix $before): Mix
    {
        $source = $before->sources[$this->source->id] ?? $this->source;

        return isset($before->sources[$source->id]) && $source->gain->equals($this->gain) ? $before : $before->withSource($source->withGain($this->gain));
    }
}
