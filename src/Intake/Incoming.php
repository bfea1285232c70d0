<?php

declare(strict_types=1);

namespace Wattage\App\Intake;

use Wattage\App\Entity\Source;
use Wattage\App\Media\Measured;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Source as MixSource;

/** A source that has been taken in, and is not visible yet. */
final readonly class Incoming
{
    /** @param int $size bytes of the file it keeps */
    public function __construct(public Source $source, private string $name, private Measured $measured, private int $size)
    {
    }

    /** The one moment in which it becomes usable. */
    public function becomeReady(): void
    {
        $this->source->becomeFile($this->name, $this->size);
        $this->measured->makeReady($this->source);
    }

    /** As the mix will see it. */
    public function placeable(): MixSource
    {
        return new MixSource((string) $this->source->id, $this->name, $this->measured->totals->frames, $this->measured->facts->channels, Decibels::unchanged(), null, $this->measured->facts->hasPicture);
    }
}
