<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

/** Keeps an edit from taking so long that others wait: what does not grow with its own length only is bounded. */
final class Effort
{
    /** Keyframes or clips gone through, about a second of work. */
    private const MOST = 2_500_000;

    /** @throws InvalidEdit */
    public static function affordable(int $steps, string $field): void
    {
        $steps <= self::MOST || throw InvalidEdit::tooMuchAtOnce($field);
    }
}
