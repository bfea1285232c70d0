<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** What matters of a picture when a film is made of it. */
final readonly class FilmFacts
{
    /**
     * @param int $width pixels, even
     * @param int $height pixels, even
     * @param float $leadSeconds how much later the sound of the file starts than its picture
     * @param bool $canBeCopied whether it can stand in an MP4 file as it is
     */
    public function __construct(public int $width, public int $height, public float $framesPerSecond, public float $leadSeconds, public bool $canBeCopied)
    {
    }
}
