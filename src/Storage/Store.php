<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

use Closure;

/**
 * Where finished files and the pieces of uploads are kept: by path, whole or a range at a time. What is put comes under its name when it is whole.
 * All application servers and workers share one.
 */
interface Store
{
    /** How a file ends that has not come under its name. */
    public const UNFINISHED = '.part';

    /**
     * Takes a finished local file, which is gone from where it was afterwards.
     *
     * @param ?Closure(): mixed $tick called now and then while it takes long
     *
     * @throws NoRoom
     * @throws MissingFile when its directory is removed meanwhile
     */
    public function put(string $path, string $localFile, ?Closure $tick = null): void;

    /**
     * @throws NoRoom
     * @throws MissingFile when its directory is removed meanwhile
     */
    public function write(string $path, string $bytes): void;

    /** @throws MissingFile */
    public function open(string $path): StoredBytes;

    public function has(string $path): bool;

    public function delete(string $path): void;

    /** With all that is in it; nothing when there is none. */
    public function deleteAll(string $directory): void;

    /** @return iterable<string, int> all files in a directory and below, and when each was last written, Unix time */
    public function files(string $directory): iterable;

    /** @return ?int bytes; null where nobody can tell */
    public function freeBytes(): ?int;

    /**
     * An address from which the file can be fetched for a short while, by whoever has it; null where the store has none.
     *
     * @param array{type: string, disposition?: string} $as what it is to be called
     */
    public function address(string $path, array $as): ?string;
}
