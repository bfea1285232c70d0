<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Level\Decibels;

/** A recording that clips are cut from, as the mix knows it. */
final readonly class Source
{
    public string $id;
    public string $name;

    /**
     * @param int $length samples at the mix rate, > 0
     * @param int $channels 1 or 2
     * @param Decibels $gain applies to every use of the source
     *
     * @throws InvalidMix
     */
    public function __construct(string $id, string $name, public int $length, public int $channels, public Decibels $gain)
    {
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $length > 0 || throw InvalidMix::emptyClip();
        1 === $channels || 2 === $channels || throw InvalidMix::unsupportedChannels();
        $gain->atMost(Decibels::MAX_CLIP);
    }

    public function withGain(Decibels $gain): self
    {
        return new self($this->id, $this->name, $this->length, $this->channels, $gain);
    }
}
