<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** What is done to the spectrum of a clip or a track, the same all along. */
final readonly class Colour
{
    public function __construct(public ?LowCut $lowCut = null, public ?Tone $tone = null)
    {
    }

    public static function none(): self
    {
        return new self();
    }

    public function isNone(): bool
    {
        return null === $this->lowCut && [] === ($this->tone?->biquads(48_000) ?? []);
    }

    /** @return list<Biquad> one after the other */
    public function biquads(int $rate): array
    {
        return [...$this->lowCut?->biquads($rate) ?? [], ...$this->tone?->biquads($rate) ?? []];
    }
}
