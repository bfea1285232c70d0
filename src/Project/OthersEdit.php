<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use RuntimeException;

/** An undo that would take back what somebody else did, without having been meant so. */
final class OthersEdit extends RuntimeException
{
    public function __construct(string $name, string $label, public readonly int $revision)
    {
        parent::__construct("The newest edit is by {$name}: “{$label}”. It is only taken back when you say so.");
    }
}
