<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Level\Decibels;

/** A recording that clips are cut from, as the mix knows it. */
final readonly class Source
{
    public string $id;
    public string $name;
    public SpokenMarks $marks;

    /**
     * @param int $length samples at the mix rate, > 0
     * @param int $channels 1 or 2
     * @param Decibels $gain applies to every use of the source; to its left channel alone where $right is given
     * @param ?Decibels $right gain of the right channel where the two are not linked
     * @param bool $picture whether it has a picture besides its sound
     * @param ?SpokenMarks $marks what was said by hand to be speech in it
     *
     * @throws InvalidMix
     */
    public function __construct(string $id, string $name, public int $length, public int $channels, public Decibels $gain, public ?Decibels $right = null, public bool $picture = false, ?SpokenMarks $marks = null)
    {
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $this->marks = $marks ?? new SpokenMarks();
        $length > 0 || throw InvalidMix::emptyClip();
        1 === $channels || 2 === $channels || throw InvalidMix::unsupportedChannels();
        $gain->atMost(Decibels::MAX_CLIP);
        $right?->atMost(Decibels::MAX_CLIP);
        null === $right || 2 === $channels || throw InvalidMix::oneChannel($name);
    }

    public function withGain(Decibels $gain): self
    {
        return new self($this->id, $this->name, $this->length, $this->channels, $gain, $this->right, $this->picture, $this->marks);
    }

    /** @param ?Decibels $right null links the channels */
    public function withRight(?Decibels $right): self
    {
        return new self($this->id, $this->name, $this->length, $this->channels, $this->gain, $right, $this->picture, $this->marks);
    }

    public function withMarks(SpokenMarks $marks): self
    {
        return new self($this->id, $this->name, $this->length, $this->channels, $this->gain, $this->right, $this->picture, $marks);
    }

    /** The gain that both channels have in common; what the channels have by themselves is in channelGains(). */
    public function commonGain(): Decibels
    {
        return null === $this->right ? $this->gain : Decibels::unchanged();
    }

    /** @return array{float, float} gain ratios of left and right besides the common gain */
    public function channelGains(): array
    {
        return null === $this->right ? [1.0, 1.0] : [$this->gain->ratio(), $this->right->ratio()];
    }
}
