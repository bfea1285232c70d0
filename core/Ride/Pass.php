<?php

declare(strict_types=1);

namespace Wattage\Core\Ride;

/** One ride of a track, from play to stop: where its controls stood, as the browser wrote it down. */
final readonly class Pass
{
    public const MAX_SAMPLES = 1_000_000;

    /**
     * @param int $start timeline sample
     * @param int $stop > $start
     * @param list<Sample> $level dB; in the order in which they were made
     * @param list<Sample> $pan
     * @param list<Sample> $mute
     */
    public function __construct(public string $track, public Mode $mode, public int $start, public int $stop, public array $level, public array $pan = [], public array $mute = [])
    {
    }
}
