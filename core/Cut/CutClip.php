<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

/** A part of a file in a cut. */
final readonly class CutClip
{
    /**
     * @param string $media name of the file, without directories
     * @param int $at timeline samples
     * @param int $in samples of the file, at the rate of the timeline
     * @param int $length samples, > 0
     * @param int $fadeIn samples of fade at its beginning, where nothing lies under it
     * @param int $fadeOut samples
     */
    public function __construct(public string $name, public string $media, public int $at, public int $in, public int $length, public int $fadeIn = 0, public int $fadeOut = 0)
    {
    }
}
