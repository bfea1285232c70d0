<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Source;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Gives a source the gain that brings its measured average level to a target, in every clip cut from it. */
final readonly class LevelSource implements Edit
{
    /**
     * @param Source $source as the caller knows it; taken into the mix when it is not there yet
     * @param float $average measured, dBFS
     * @param float $target dBFS
     */
    public function __construct(private Source $source, private float $average, private float $target)
    {
    }

    public function label(Mix $before): string
    {
        return \sprintf('Bring source %s to %sFS on average', $this->source->name, Decibels::of($this->target)->format());
    }

    public function apply(Mix $before): Mix
    {
        $gain = round($this->target - $this->average, 2);
        $gain <= Decibels::MAX_CLIP || throw InvalidEdit::tooQuietToLevel($this->source->name, $gain);

        return (new SetSourceGain($this->source, Decibels::of($gain)))->apply($before);
    }
}
