<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Timeline\DuckTiming;

/** A way to give way, by the kind of programme: our own, around what is common practice. */
final readonly class Preset
{
    /**
     * @param ?float $depth dB; null for as deep as speech needs
     * @param bool $toClarity whether that is a clarity and not a clearance, made by band and from moment to moment: what takes least of the music
     */
    private function __construct(public string $name, public ?float $depth, public DuckTiming $timing, public bool $toClarity = false)
    {
    }

    /** @return list<self> */
    public static function all(int $rate): array
    {
        return [
            new self('Interview', -12.0, DuckTiming::seconds($rate, lead: 0.1, fall: 0.4, rise: 0.9, hold: 0.3, bridge: 0.8, ignore: 0.15)),
            new self('Podcast', null, DuckTiming::seconds($rate, lead: 0.15, fall: 0.3, rise: 1.2, hold: 0.5, bridge: 1.5, ignore: 0.2)),
            new self('Lively', -9.0, DuckTiming::seconds($rate, lead: 0.05, fall: 0.15, rise: 0.4, hold: 0.1, bridge: 0.4, ignore: 0.1)),
            new self('By band', null, DuckTiming::seconds($rate, lead: 0.1, fall: 0.3, rise: 1.0, hold: 0.3, bridge: 1.0, ignore: 0.15), true),
            new self('Gentle', -8.0, DuckTiming::seconds($rate, lead: 0.2, fall: 0.9, rise: 2.0, hold: 0.6, bridge: 1.5, ignore: 0.25)),
        ];
    }
}
