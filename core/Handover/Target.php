<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Timeline\Aim;

/** What a file that is handed over is to measure at. */
final readonly class Target
{
    public const QUIETEST = -50.0;
    public const LOUDEST = -5.0;
    public const LOWEST_PEAK = -20.0;
    public const HIGHEST_PEAK = 0.0;

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

    /** What the project says that it is to reach. */
    public static function ofAim(Aim $aim): self
    {
        return self::of($aim->loudness, $aim->truePeak);
    }

    /** The same with its ceiling so much lower. */
    public function lowered(float $db): self
    {
        return new self($this->loudness, null === $this->truePeak ? null : $this->truePeak - $db);
    }
}
