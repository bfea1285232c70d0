<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\Core\Timeline\Mix;

/** From one state to another, by an edit, undo, redo or a jump. */
final readonly class Step
{
    public function __construct(public Project $project, public Revision $to, public Mix $before, public Mix $after)
    {
    }
}
