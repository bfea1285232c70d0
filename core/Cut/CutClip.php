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
     * @param int $hour samples of the file's own time up to the whole hour in which the part begins, where that is all that is known of where it starts
     */
    public function __construct(public string $name, public string $media, public int $at, public int $in, public int $length, public int $fadeIn = 0, public int $fadeOut = 0, public int $hour = 0)
    {
    }

    public function longer(int $by): self
    {
        return new self($this->name, $this->media, $this->at, $this->in, $this->length + $by, $this->fadeIn, $this->fadeOut, $this->hour);
    }

    public function faded(int $fade): self
    {
        return new self($this->name, $this->media, $this->at, $this->in, $this->length, $this->fadeIn, min($fade, $this->length), $this->hour);
    }
}
