<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** What a clip was in the cut that it was laid from, whatever became of it since: by this it is known again when the cut has changed. */
final readonly class CutPart
{
    public string $cut;
    public string $track;

    /**
     * @param string $cut id of the cut
     * @param string $track name of its track there
     * @param string $source id
     * @param int $at timeline samples ≥ 0
     * @param int $in samples of the source ≥ 0
     * @param int $length samples > 0
     *
     * @throws InvalidMix
     */
    public function __construct(string $cut, string $track, public string $source, public int $at, public int $in, public int $length)
    {
        $this->cut = Name::checkId($cut, 'cut');
        $this->track = Name::check($track);
        $at >= 0 || throw InvalidMix::negativeTime('at');
        $in >= 0 || throw InvalidMix::negativeTime('in');
        $length > 0 || throw InvalidMix::emptyClip();
    }

    /** What a clip would be, had it been laid as it is now. */
    public static function ofClip(string $cut, string $track, Clip $clip): self
    {
        return new self($cut, $track, $clip->source, $clip->at, $clip->in, $clip->length);
    }

    /** First sample of the source that is not in it. */
    public function out(): int
    {
        return $this->in + $this->length;
    }

    /** Samples of the source that two parts have in common; 0 for two of different sources. */
    public function overlap(self $other): int
    {
        return $this->source === $other->source ? max(0, min($this->out(), $other->out()) - max($this->in, $other->in)) : 0;
    }
}
