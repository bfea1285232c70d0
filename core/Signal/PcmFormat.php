<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** Layout of the internal PCM: interleaved, signed, little-endian, at the mix rate. */
final readonly class PcmFormat
{
    private function __construct(public int $channels, public int $bits)
    {
    }

    /** @throws InvalidAudio unless 1 or 2 channels of 16 or 24 bits */
    public static function of(int $channels, int $bits): self
    {
        return (1 === $channels || 2 === $channels) && (16 === $bits || 24 === $bits) ? new self($channels, $bits) : throw InvalidAudio::unsupportedPcm($channels, $bits);
    }

    public function bytesPerFrame(): int
    {
        return $this->channels * intdiv($this->bits, 8);
    }

    /** The integer that stands for 1.0. */
    public function fullScale(): int
    {
        return 1 << ($this->bits - 1);
    }
}
