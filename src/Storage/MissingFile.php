<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use RuntimeException;

/** A file is not in the store. */
final class MissingFile extends RuntimeException
{
    public function __construct(string $path)
    {
        parent::__construct("The stored file {$path} is gone.");
    }
}
