<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Signal\PcmFormat;

/** Where the renderer gets the sound of a source from. */
interface PcmSource
{
    public function format(): PcmFormat;

    /** @return string the bytes of exactly $frames frames from frame $from; zeros past the end */
    public function read(int $from, int $frames): string;

    /** @return ?self the same sound, which another process can read at the same time; null where that cannot be */
    public function apart(): ?self;
}
