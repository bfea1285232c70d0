<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** Writes to a stream, all of it or not at all without a word. */
final class Output
{
    /**
     * @param resource $stream
     *
     * @throws NotWritten
     */
    public static function write(mixed $stream, string $bytes): void
    {
        @fwrite($stream, $bytes) === \strlen($bytes) || throw new NotWritten();
    }
}
