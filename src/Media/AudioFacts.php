<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** What ffprobe tells about the sound in a file, and whether it comes with a picture. */
final readonly class AudioFacts
{
    /**
     * @param string $format container and codec, e.g. "wav · pcm_s16le"
     * @param int $rate samples per second in the file
     * @param int $channels 1 or 2; more only where the caller asked for it
     * @param int $bits of the internal PCM: 16 where the file has no more, else 24
     * @param ?float $claimedSeconds what the header says, where such a header can be relied on
     * @param bool $hasPicture whether there is a moving picture besides the sound
     * @param float $startSeconds how much later the sound starts than the file as a whole
     * @param ?string $whySilent a sentence where silence stands for its sound: that is elsewhere
     * @param ?float $beganAt seconds since midnight at which it was recorded, where its broadcast extension says so
     * @param list<array{float, string}> $chapters seconds and name
     */
    public function __construct(
        public string $format,
        public int $rate,
        public int $channels,
        public int $bits,
        public ?float $claimedSeconds,
        public bool $hasPicture = false,
        public float $startSeconds = 0.0,
        public ?string $whySilent = null,
        public ?float $beganAt = null,
        public array $chapters = [],
    ) {
    }

    /** @param list<array{float, string}> $chapters seconds and name */
    public function withChapters(array $chapters): self
    {
        return new self($this->format, $this->rate, $this->channels, $this->bits, $this->claimedSeconds, $this->hasPicture, $this->startSeconds, $this->whySilent, $this->beganAt, $chapters);
    }

    /** @param ?float $beganAt seconds since midnight */
    public function recorded(?float $beganAt): self
    {
        return new self($this->format, $this->rate, $this->channels, $this->bits, $this->claimedSeconds, $this->hasPicture, $this->startSeconds, $this->whySilent, $beganAt, $this->chapters);
    }

    /** A film whose channels are sources of their own. */
    public function pictureOnly(): self
    {
        return new self($this->format, $this->rate, 1, 16, $this->claimedSeconds, true, $this->startSeconds, 'The channels of this film are sources of their own; this one has its picture.');
    }
}
