<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Level\Decibels;

/** The faders that come after those of the tracks: one for each stem, and one for the programme. */
final readonly class Faders
{
    public Decibels $programme;

    /**
     * @param array<string, Decibels> $stems by stem, where not 0 dB
     *
     * @throws \Wattage\Core\Level\InvalidLevel above +12 dB
     */
    public function __construct(private array $stems = [], ?Decibels $programme = null)
    {
        $this->programme = $programme ?? Decibels::unchanged();
        foreach ([...$stems, $this->programme] as $fader) {
            $fader->atMost(Decibels::MAX_FADER);
        }
    }

    public function of(Stem $stem): Decibels
    {
        return $this->stems[$stem->value] ?? Decibels::unchanged();
    }

    public function with(Stem $stem, Decibels $fader): self
    {
        $stems = [...$this->stems, $stem->value => $fader];
        ksort($stems);

        return new self(array_filter($stems, static fn (Decibels $f): bool => !$f->equals(Decibels::unchanged())), $this->programme);
    }

    public function withProgramme(Decibels $fader): self
    {
        return new self($this->stems, $fader);
    }
}
