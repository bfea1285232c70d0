<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use RuntimeException;

/** A step that was made on an older state and makes no sense on the newest. */
final class OutdatedRevision extends RuntimeException
{
    private function __construct(string $message, public readonly int $newest, public readonly string $field = '')
    {
        parent::__construct($message);
    }

    /**
     * @param string $who names of those who changed the mix since
     * @param string $edit what was asked for, in words; empty where it cannot be said
     */
    public static function edit(string $who, string $edit, string $reason, int $newest, string $field): self
    {
        return new self("{$who} changed the mix in the meantime. {$reason}".('' === $edit ? '' : " Not done: “{$edit}”."), $newest, $field);
    }

    /** @param string $step such as "undo" */
    public static function step(string $who, string $step, int $newest): self
    {
        return new self("{$who} changed the mix in the meantime, so {$step} would have meant something else. Look at it, and ask again.", $newest);
    }

    public static function replaced(int $newest): self
    {
        return new self('What was to be adjusted is not your newest edit any more.', $newest);
    }
}
