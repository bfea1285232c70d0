<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Entity\Source;

/** A source that has been taken in, and is not visible yet. */
final readonly class Incoming
{
    /** @param ?int $size bytes, where it is one channel of what was sent */
    public function __construct(public Source $source, private string $name, private Measured $measured, private ?int $size = null)
    {
    }

    /** The one moment in which it becomes usable. */
    public function becomeReady(): void
    {
        null === $this->size || $this->source->becomeChannel($this->name, $this->size);
        $this->source->becomeReady($this->measured);
    }
}
