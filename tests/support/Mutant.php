<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/** A file of the core with one operator turned around. */
final readonly class Mutant
{
    /** @param string $code the whole file, as it would be */
    public function __construct(public string $file, public int $line, public string $was, public string $is, public string $code)
    {
    }

    public function place(): string
    {
        return "{$this->file}:{$this->line}: {$this->was} → {$this->is}";
    }
}
