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
     */
    public function __construct(
        public string $format,
        public int $rate,
        public int $channels,
        public int $bits,
        public ?float $claimedSeconds,
        public bool $hasPicture = false,
        public float $startSeconds = 0.0,
    ) {
    }
}
