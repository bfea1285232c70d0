<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use RuntimeException;

/** A disk is full, or will be; says which, and what was to be put on it. */
final class NoRoom extends RuntimeException
{
    public static function full(string $what, string $disk): self
    {
        return new self("The {$disk} is full: {$what} could not be stored, and nothing of it was kept. Make room, or ask whoever runs this server, and try again.");
    }

    public static function tooLittle(string $what, string $disk, int $needed, int $free): self
    {
        return new self(\sprintf('The %s has no room for %s: it needs %s, and %s are free. Make room, or ask whoever runs this server, and try again.', $disk, $what, self::size($needed), self::size($free)));
    }

    private static function size(int $bytes): string
    {
        return $bytes >= 1_000_000_000 ? \sprintf('%.1f GB', $bytes / 1e9) : \sprintf('%d MB', (int) ceil($bytes / 1e6));
    }
}
