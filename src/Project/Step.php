<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;

/** From the state that somebody's screen shows to the one that now is the present. */
final readonly class Step
{
    /** @param Revision $from what the screen shows, whatever was done in between */
    public function __construct(public Project $project, public Revision $from, public Revision $to)
    {
    }
}
