<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Levels;
use Wattage\Core\Timeline\Mix;

/** Gives clips the levels that were copied from another one. */
final readonly class PasteLevels implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private Levels $levels)
    {
    }

    public function label(Mix $before): string
    {
        return 'Paste levels to '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, $this->levels->putOn(...));
    }
}
