<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

final class LocalBytes implements StoredBytes
{
    /** @var resource */
    private readonly mixed $stream;

    /** @throws MissingFile */
    public function __construct(private readonly string $file, private readonly string $path)
    {
        $stream = is_file($file) ? fopen($file, 'r') : false;
        if (false === $stream) {
            throw new MissingFile($path);
        }
        $this->stream = $stream;
    }

    public function size(): int
    {
        return (int) (fstat($this->stream)['size'] ?? 0);
    }

    public function read(int $from, int $length): string
    {
        fseek($this->stream, $from);

        return $length > 0 ? (string) stream_get_contents($this->stream, $length) : '';
    }

    public function apart(): self
    {
        return new self($this->file, $this->path);
    }
}
