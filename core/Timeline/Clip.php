<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * A part of a source, placed on the timeline. Its curve lives in source time, so that moving and trimming never shift a
 * keyframe against the sound.
 */
final readonly class Clip
{
    public string $id;
    public string $name;

    /**
     * @param int $at where it starts on the timeline, samples ≥ 0
     * @param int $in where it starts in its source, samples ≥ 0
     * @param int $length samples > 0
     *
     * @throws InvalidMix
     */
    public function __construct(
        string $id,
        public string $source,
        string $name,
        public int $at,
        public int $in,
        public int $length,
        public Decibels $gain,
        public Curve $curve,
    ) {
        $this->id = Name::checkId($id);
        $this->name = Name::check($name);
        $at >= 0 || throw InvalidMix::negativeTime('at');
        $in >= 0 || throw InvalidMix::negativeTime('in');
        $length > 0 || throw InvalidMix::emptyClip();
        $gain->atMost(Decibels::MAX_CLIP);
    }

    /** Where it sounds on the timeline. */
    public function span(): Span
    {
        return Span::of($this->at, $this->at + $this->length);
    }

    /** The part of its source that sounds. */
    public function heard(): Span
    {
        return Span::of($this->in, $this->in + $this->length);
    }

    /** Timeline to source time. */
    public function toSource(int $position): int
    {
        return $position - $this->at + $this->in;
    }

    /** Level of the clip at a timeline position, source gain not included. */
    public function levelAt(int $position): Decibels
    {
        return $this->gain->plus($this->curve->levelAt($this->toSource($position)));
    }

    public function movedTo(int $at): self
    {
        return new self($this->id, $this->source, $this->name, $at, $this->in, $this->length, $this->gain, $this->curve);
    }

    /** The sound stays where it is on the timeline; only the ends change. */
    public function trimmedTo(Span $span): self
    {
        return new self($this->id, $this->source, $this->name, $span->from, $this->in + $span->from - $this->at, $span->length(), $this->gain, $this->curve);
    }

    public function withGain(Decibels $gain): self
    {
        return new self($this->id, $this->source, $this->name, $this->at, $this->in, $this->length, $gain, $this->curve);
    }

    public function withCurve(Curve $curve): self
    {
        return $curve === $this->curve ? $this : new self($this->id, $this->source, $this->name, $this->at, $this->in, $this->length, $this->gain, $curve);
    }
}
