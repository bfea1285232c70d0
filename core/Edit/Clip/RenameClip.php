<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Gives a clip another name. */
final readonly class RenameClip implements Edit
{
    public function __construct(private string $clip, private string $name)
    {
    }

    public function label(Mix $before): string
    {
        return "Rename clip {$before->clip($this->clip)->name} to {$this->name}";
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);

        return $clip->name === $this->name ? $before : $before->withClip($clip->withName($this->name));
    }
}
