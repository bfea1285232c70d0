<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use RuntimeException;

/** What came to be stored is not what was made. */
final class Damaged extends RuntimeException
{
    public function __construct(string $path)
    {
        parent::__construct("What is stored as {$path} differs from what was made.");
    }
}
