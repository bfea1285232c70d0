<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Removes markers. */
final readonly class RemoveMarkers implements Edit
{
    /** @param non-empty-list<string> $markers */
    public function __construct(private array $markers)
    {
    }

    public function label(Mix $before): string
    {
        return 1 === \count($this->markers) ? "Remove marker {$before->marker($this->markers[0])->name}" : \sprintf('Remove %d markers', \count($this->markers));
    }

    public function apply(Mix $before): Mix
    {
        foreach (array_unique($this->markers) as $id) {
            $before = $before->withoutMarker($id);
        }

        return $before;
    }
}
