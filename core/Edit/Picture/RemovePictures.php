<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Picture;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Takes pictures that stand by themselves off the timeline. */
final readonly class RemovePictures implements Edit
{
    /** @param non-empty-list<string> $pictures */
    public function __construct(private array $pictures)
    {
    }

    public function label(Mix $before): string
    {
        return \count($this->pictures) > 1 ? \sprintf('Remove %d pictures', \count($this->pictures)) : 'Remove the picture';
    }

    public function apply(Mix $before): Mix
    {
        foreach (array_unique($this->pictures) as $id) {
            $before = $before->withoutPicture($id);
        }

        return $before;
    }
}
