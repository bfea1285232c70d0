<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Mix;

/** Changes how time is counted; no sound moves. */
final readonly class SetFrameRate implements Edit
{
    public function __construct(private FrameRate $frameRate)
    {
    }

    public function label(Mix $before): string
    {
        return "Count {$this->frameRate->value} frames per second";
    }

    public function apply(Mix $before): Mix
    {
        return $before->frameRate === $this->frameRate ? $before : $before->withFrameRate($this->frameRate);
    }
}
