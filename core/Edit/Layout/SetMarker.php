<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;

/** Gives a marker another name or place. */
final readonly class SetMarker implements Edit
{
    public function __construct(private string $marker, private ?int $at = null, private ?string $name = null)
    {
    }

    public function label(Mix $before): string
    {
        $marker = $before->marker($this->marker);

        return null === $this->name ? "Move marker {$marker->name}" : "Rename marker {$marker->name} to {$this->name}";
    }

    public function apply(Mix $before): Mix
    {
        $old = $before->marker($this->marker);
        $new = new Marker($old->id, $this->at ?? $old->at, $this->name ?? $old->name);

        return $new == $old ? $before : $before->withMarker($new);
    }
}
