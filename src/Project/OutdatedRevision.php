<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use RuntimeException;

/** An edit that was made on an older state and makes no sense on the newest. */
final class OutdatedRevision extends RuntimeException
{
    private function __construct(string $message, public readonly int $newest, public readonly string $field)
    {
        parent::__construct($message);
    }

    public static function because(string $reason, int $newest, string $field = ''): self
    {
        return new self("Somebody changed the mix in the meantime: {$reason}", $newest, $field);
    }
}
