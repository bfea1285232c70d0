<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** Interleaved, little-endian samples of any number of channels: signed 16-bit integers, or 32-bit floats with full scale at 1. */
final readonly class SampleLayout
{
    private function __construct(public int $channels, public bool $isFloat)
    {
    }

    public static function int16(int $channels): self
    {
        return new self($channels, false);
    }

    public static function float32(int $channels): self
    {
        return new self($channels, true);
    }

    public function bytesPerFrame(): int
    {
        return $this->channels * ($this->isFloat ? 4 : 2);
    }

    /** The number that stands for 1.0. */
    public function fullScale(): float
    {
        return $this->isFloat ? 1.0 : 32768.0;
    }

    /** @return array<int, float|int> samples in file order; what is not a number is taken as silence */
    public function decode(string $bytes): array
    {
        return $this->isFloat ? FloatDecoder::decode($bytes) : PcmDecoder::decode($bytes, PcmFormat::of(1, 16));
    }
}
