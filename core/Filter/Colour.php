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
        return [] === $this->recipes();
    }

    /** @return list<Recipe> one after the other */
    public function recipes(): array
    {
        return [...$this->lowCut?->recipes() ?? [], ...$this->tone?->recipes() ?? []];
    }

    /** @return list<Biquad> one after the other */
    public function biquads(int $rate): array
    {
        return array_map(static fn (Recipe $recipe): Biquad => $recipe->biquad($rate), $this->recipes());
    }
}
