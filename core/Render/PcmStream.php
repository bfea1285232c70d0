<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Closure;
use Wattage\Core\Signal\PcmFormat;

/** Sound in a seekable stream: all of it, or a part of a file. */
final readonly class PcmStream implements PcmSource
{
    /**
     * @param resource $stream seekable
     * @param int $at byte that the samples begin at
     * @param ?int $bytes of them; null for all there are
     * @param ?Closure(): mixed $again opens the same once more, false where that fails; null where it cannot be
     */
    public function __construct(private mixed $stream, private PcmFormat $format, private int $at = 0, private ?int $bytes = null, private ?Closure $again = null)
    {
    }

    public function format(): PcmFormat
    {
        return $this->format;
    }

    public function read(int $from, int $frames): string
    {
        $bytes = $frames * $this->format->bytesPerFrame();
        $skipped = $from * $this->format->bytesPerFrame();
        $there = null === $this->bytes ? $bytes : min($bytes, $this->bytes - $skipped);
        fseek($this->stream, $this->at + $skipped);
        $read = $there > 0 ? (string) stream_get_contents($this->stream, $there) : '';

        return str_pad($read, $bytes, "\0");
    }

    public function apart(): ?self
    {
        $stream = null === $this->again ? false : ($this->again)();

        return \is_resource($stream) ? new self($stream, $this->format, $this->at, $this->bytes, $this->again) : null;
    }
}
