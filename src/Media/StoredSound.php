<?php

declare(strict_types=1);

namespace Wattage\App\Media;

use Wattage\App\Storage\StoredBytes;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Signal\PcmFormat;

/** The sound of a source, from the store. */
final readonly class StoredSound implements PcmSource
{
    public function __construct(private StoredBytes $bytes, private PcmFormat $format)
    {
    }

    public function format(): PcmFormat
    {
        return $this->format;
    }

    public function read(int $from, int $frames): string
    {
        $length = $frames * $this->format->bytesPerFrame();

        return str_pad($this->bytes->read($from * $this->format->bytesPerFrame(), $length), max(0, $length), "\0");
    }

    public function apart(): ?self
    {
        $bytes = $this->bytes->apart();

        return null === $bytes ? null : new self($bytes, $this->format);
    }
}
