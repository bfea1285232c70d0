<?php

declare(strict_types=1);

namespace Wattage\App\Storage;

/** A local file that is being written. Every byte of it is known to be on the disk, or it is gone and says why. */
final class OutFile
{
    /** Bytes that are copied at once. */
    public const PIECE = 1 << 20;

    /** @param resource $stream */
    private function __construct(private readonly mixed $stream, private readonly string $file, private readonly string $name, private readonly string $disk)
    {
    }

    /**
     * @param string $name what it is, for people
     * @param string $disk what it is written to, for people
     *
     * @throws NoRoom
     */
    public static function create(string $file, string $name, string $disk): self
    {
        $stream = @fopen($file, 'w');

        return false === $stream ? throw NoRoom::full($name, $disk) : new self($stream, $file, $name, $disk);
    }

    /**
     * A place in a file that is there, which others may be writing elsewhere.
     *
     * @param int $at byte
     *
     * @throws NoRoom
     */
    public static function within(string $file, int $at, string $name, string $disk): self
    {
        $stream = @fopen($file, 'r+');
        if (false === $stream || 0 !== fseek($stream, $at)) {
            throw NoRoom::full($name, $disk);
        }

        return new self($stream, $file, $name, $disk);
    }

    /** @throws NoRoom */
    public function write(string $bytes): void
    {
        @fwrite($this->stream, $bytes) === \strlen($bytes) || $this->full();
    }

    /** @return resource for those who check themselves what they write, and call {@see full()} */
    public function stream(): mixed
    {
        return $this->stream;
    }

    /** Until the disk has it, it may still turn out to be full. @throws NoRoom */
    public function close(): void
    {
        (@fflush($this->stream) && @fsync($this->stream) && @fclose($this->stream)) || $this->full();
    }

    /** It cannot be written on. @throws NoRoom */
    public function full(): never
    {
        \is_resource($this->stream) && @fclose($this->stream);
        @unlink($this->file);
        throw NoRoom::full("“{$this->name}”", $this->disk);
    }
}
