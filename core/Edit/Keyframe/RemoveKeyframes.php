<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Edit\Chosen;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Mix;

/** Removes keyframes, of one wire or of several. */
final readonly class RemoveKeyframes implements Edit
{
    /** @param non-empty-list<Chosen> $chosen */
    public function __construct(private array $chosen)
    {
    }

    public function label(Mix $before): string
    {
        return 'Remove '.Naming::keyframes($before, $this->chosen);
    }

    public function apply(Mix $before): Mix
    {
        foreach ($this->chosen as $chosen) {
            $placed = $chosen->wire->in($before);
            $before = $placed->with($placed->curve()->without(...$chosen->keyframes));
        }

        return $before;
    }
}
