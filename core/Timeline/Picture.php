<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Time\Span;

/** A part of a source's picture that stands on the timeline by itself, detached from its sound. */
final readonly class Picture
{
    public string $id;

    /**
     * @param int $at timeline samples
     * @param int $in source samples
     * @param int $length samples > 0
     */
    public function __construct(string $id, public string $source, public int $at, public int $in, public int $length)
    {
        $this->id = Name::checkId($id);
        $at >= 0 || throw InvalidMix::negativeTime('at');
        $in >= 0 || throw InvalidMix::negativeTime('in');
        $length > 0 || throw InvalidMix::emptyClip();
    }

    public function span(): Span
    {
        return Span::of($this->at, $this->at + $this->length);
    }

    /** What it shows stays where it is on the timeline; only the ends change. */
    public function trimmedTo(Span $span): self
    {
        return new self($this->id, $this->source, $span->from, $this->in + $span->from - $this->at, $span->length());
    }

    public function called(string $id): self
    {
        return new self($id, $this->source, $this->at, $this->in, $this->length);
    }

    public function movedTo(int $at): self
    {
        return new self($this->id, $this->source, $at, $this->in, $this->length);
    }
}
