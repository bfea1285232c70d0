<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

/** Picture frame rates and how their frames are counted (SMPTE ST 12-1). */
enum FrameRate: string
{
    case F23976 = '23.976';
    case F24 = '24';
    case F25 = '25';
    case F2997Drop = '29.97df';
    case F2997 = '29.97';
    case F30 = '30';
    case F50 = '50';
    case F5994 = '59.94';
    case F60 = '60';

    /** @throws InvalidTime */
    public static function named(string $name): self
    {
        return self::tryFrom($name) ?? throw InvalidTime::unknownFrameRate($name);
    }

    /**
     * Frames per second as a fraction.
     *
     * @return array{int, int} numerator, denominator
     */
    public function fraction(): array
    {
        return match ($this) {
            self::F23976 => [24000, 1001],
            self::F2997, self::F2997Drop => [30000, 1001],
            self::F5994 => [60000, 1001],
            default => [$this->nominal(), 1],
        };
    }

    /** Frames counted per timecode second. */
    public function nominal(): int
    {
        return match ($this) {
            self::F23976, self::F24 => 24,
            self::F25 => 25,
            self::F2997Drop, self::F2997, self::F30 => 30,
            self::F50 => 50,
            self::F5994, self::F60 => 60,
        };
    }

    public function dropsFrames(): bool
    {
        return self::F2997Drop === $this;
    }

    /** First sample of a frame: the first sample not earlier than the frame's instant. */
    public function sampleOf(int $frame, int $rate): int
    {
        [$numerator, $denominator] = $this->fraction();

        return intdiv($frame * $rate * $denominator + $numerator - 1, $numerator);
    }

    /** The frame showing at a sample. */
    public function frameAt(int $sample, int $rate): int
    {
        [$numerator, $denominator] = $this->fraction();

        return intdiv($sample * $numerator, $rate * $denominator);
    }
}
