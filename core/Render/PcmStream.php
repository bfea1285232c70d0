<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Signal\PcmFormat;

/** Sound in a seekable stream that holds nothing but samples. */
final readonly class PcmStream implements PcmSource
{
    /** @param resource $stream seekable */
    public function __construct(private mixed $stream, private PcmFormat $format)
    {
    }

    public function format(): PcmFormat
    {
        return $this->format;
    }

    public function read(int $from, int $frames): string
    {
        $bytes = $frames * $this->format->bytesPerFrame();
        fseek($this->stream, $from * $this->format->bytesPerFrame());
        $read = $bytes > 0 ? (string) stream_get_contents($this->stream, $bytes) : '';

        return str_pad($read, $bytes, "\0");
    }
}
