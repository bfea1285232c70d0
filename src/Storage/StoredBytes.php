<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

/** A stored file, read from anywhere in it. */
interface StoredBytes
{
    public function size(): int;

    /** @return string fewer bytes than asked for only at its end */
    public function read(int $from, int $length): string;

    /** @return ?self the same, which another process can read at the same time; null where that cannot be */
    public function apart(): ?self;
}
