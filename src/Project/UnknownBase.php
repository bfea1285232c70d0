<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use RuntimeException;

/** A step that names a state which never was. */
final class UnknownBase extends RuntimeException
{
    public function __construct(int $number)
    {
        parent::__construct("This project has no revision {$number}. Reload the page to see its present state.");
    }
}
