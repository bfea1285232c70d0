<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** What a programme is to reach: how far speech stands above the rest, how loud all of it is; and what was accepted as it is. */
final readonly class Aim
{
    public const LEAST_CLEARANCE = 3.0;
    public const MOST_CLEARANCE = 40.0;
    public const LEAST_SENSITIVITY = 3.0;
    public const MOST_SENSITIVITY = 30.0;
    public const USUAL_SENSITIVITY = 10.0;
    /** ANSI S3.5-1997 calls a talk good from here on [M]. */
    public const USUAL_CLARITY = 75.0;
    public const MOST_CLARITY = 100.0;
    public const MAX_ACCEPTED = 1000;

    /**
     * @param float $clearance LU that speech is to stand above everything else
     * @param float $sensitivity dB of evidence that a sound takes to count as speech, 10 usually: less hears more
     * @param float $loudness LUFS of the programme
     * @param float $truePeak dBTP that it must not pass
     * @param list<Accepted> $accepted in the order of time
     * @param array<string, Zone> $zones by stem, where they are not the usual ones
     * @param float $clarity of 100 that speech is to reach at every moment
     * @param Room $room where it is to be understood
     */
    public function __construct(
        public float $clearance = 15.0,
        public float $sensitivity = self::USUAL_SENSITIVITY,
        public float $loudness = -23.0,
        public float $truePeak = -1.0,
        public array $accepted = [],
        public array $zones = [],
        public float $clarity = self::USUAL_CLARITY,
        public Room $room = Room::Quiet,
    ) {
        \count($accepted) <= self::MAX_ACCEPTED || throw InvalidMix::tooMany('accepted', self::MAX_ACCEPTED);
    }

    /** @param ?list<Accepted> $accepted */
    public function with(?float $clearance = null, ?float $sensitivity = null, ?float $loudness = null, ?float $truePeak = null, ?array $accepted = null, ?float $clarity = null, ?Room $room = null): self
    {
        return new self($clearance ?? $this->clearance, $sensitivity ?? $this->sensitivity, $loudness ?? $this->loudness, $truePeak ?? $this->truePeak, $accepted ?? $this->accepted, $this->zones, $clarity ?? $this->clarity, $room ?? $this->room);
    }

    public function zone(Stem $stem): Zone
    {
        return $this->zones[$stem->value] ?? Zone::usual($stem);
    }

    public function withZone(Stem $stem, Zone $zone): self
    {
        $zones = [...$this->zones, $stem->value => $zone];
        ksort($zones);
        if ($zone == Zone::usual($stem)) {
            unset($zones[$stem->value]);
        }

        return new self($this->clearance, $this->sensitivity, $this->loudness, $this->truePeak, $this->accepted, $zones, $this->clarity, $this->room);
    }
}
