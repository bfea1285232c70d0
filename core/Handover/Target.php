<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Timeline\Aim;

/** What a file that is handed over is to measure at. */
final readonly class Target
{
    public const QUIETEST = -50.0;
    public const LOUDEST = -5.0;
    public const LOWEST_PEAK = -20.0;
    public const HIGHEST_PEAK = 0.0;
    private const NEAR = 0.1;

    /**
     * @param ?float $loudness LUFS; null leaves the programme as loud as it is
     * @param ?float $truePeak dBTP that nothing may pass; null guards nothing
     */
    private function __construct(public ?float $loudness, public ?float $truePeak)
    {
    }

    /** @throws InvalidTarget */
    public static function of(?float $loudness, ?float $truePeak): self
    {
        null === $loudness || ($loudness >= self::QUIETEST && $loudness <= self::LOUDEST) || throw InvalidTarget::loudness($loudness);
        null === $truePeak || ($truePeak >= self::LOWEST_PEAK && $truePeak <= self::HIGHEST_PEAK) || throw InvalidTarget::truePeak($truePeak);

        return new self($loudness, $truePeak);
    }

    public static function none(): self
    {
        return new self(null, null);
    }

    /** Whether nothing is asked for. */
    public function isAsItIs(): bool
    {
        return null === $this->loudness && null === $this->truePeak;
    }

    /** What the project says that it is to reach. */
    public static function ofAim(Aim $aim): self
    {
        return self::of($aim->loudness, $aim->truePeak);
    }

    /**
     * What to aim at instead, so that what comes after meets this one.
     *
     * @param float $louder LU @param float $lower dB that the ceiling is lowered by
     */
    public function corrected(float $louder, float $lower): self
    {
        return new self(null === $this->loudness ? null : $this->loudness + $louder, null === $this->truePeak ? null : $this->truePeak - $lower);
    }

    /** Whether a sound is as loud as this says, within a tenth of a LU. */
    public function isMetBy(Loudness $sound): bool
    {
        return null === $this->loudness || abs(($sound->integrated ?? -\INF) - $this->loudness) <= self::NEAR;
    }
}
