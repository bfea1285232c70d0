<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** What a delivered WAV file holds. */
enum SampleFormat: string
{
    case Pcm16 = 'pcm16';
    case Pcm24 = 'pcm24';
    case Float32 = 'float32';

    public function bits(): int
    {
        return match ($this) {
            self::Pcm16 => 16,
            self::Pcm24 => 24,
            self::Float32 => 32,
        };
    }

    /** Of the samples of so many stereo frames. */
    public function bytesFor(int $frames): int
    {
        return 2 * $frames * intdiv($this->bits(), 8);
    }
}
