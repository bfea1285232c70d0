<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** Between which average levels the sound of a stem belongs while it sounds. */
final readonly class Zone
{
    public const LOWEST = -80.0;
    public const HIGHEST = 0.0;

    /**
     * @param ?float $low dBFS, average; null where it may be as soft as it likes
     * @param float $high dBFS, average
     *
     * @throws InvalidMix where nothing lies between them
     */
    public function __construct(public ?float $low, public float $high)
    {
        null === $low || $low < $high || throw InvalidMix::emptyZone($low, $high);
    }

    /** Common practice around the starting levels, −20 dBFS on average for speech and −30 for background: what lies under speech may be soft. */
    public static function usual(Stem $stem): self
    {
        return Stem::Speech === $stem ? new self(-26.0, -14.0) : new self(null, -14.0);
    }
}
