<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** What ffprobe tells about the sound in a file. */
final readonly class AudioFacts
{
    /**
     * @param string $format container and codec, e.g. "wav · pcm_s16le"
     * @param int $rate samples per second in the file
     * @param int $channels 1 or 2
     * @param int $bits of the internal PCM: 16 where the file has no more, else 24
     * @param ?float $claimedSeconds what the header says, where such a header can be relied on
     */
    public function __construct(public string $format, public int $rate, public int $channels, public int $bits, public ?float $claimedSeconds)
    {
    }
}
