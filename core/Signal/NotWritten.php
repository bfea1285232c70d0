<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

use RuntimeException;

/** What was to be written did not go out whole: a full disk, or a reader that went away. */
final class NotWritten extends RuntimeException
{
    public function __construct()
    {
        parent::__construct('The file cannot be written: the disk may be full.');
    }
}
