<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Source;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Links the channels of a stereo source, so that both have the gain of the left one, or lets each have its own. */
final readonly class LinkSource implements Edit
{
    public function __construct(private Source $source, private bool $linked)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->linked ? 'Link' : 'Unlink')." the channels of source {$this->source->name}";
    }

    public function apply(Mix $before): Mix
    {
        $source = $before->sources[$this->source->id] ?? $this->source;

        return (null === $source->right) === $this->linked ? $before : $before->withSource($source->withRight($this->linked ? null : $source->gain));
    }
}
