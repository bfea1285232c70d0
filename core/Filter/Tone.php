<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** Lifts and lowers parts of the spectrum: a low shelf, two bells and a high shelf. */
final readonly class Tone
{
    /** dB up or down. */
    public const MOST = 6.0;
    /** How wide a bell is: an octave and a half. */
    public const Q = 0.9;
    public const LOWEST = 40.0;
    public const HIGHEST = 16_000.0;
    /** Hz, where each of the four begins. */
    public const USUAL = [180.0, 500.0, 2_000.0, 5_000.0];

    /**
     * @param list<array{float, float}> $parts Hz and dB of the low shelf, the two bells and the high shelf
     *
     * @throws InvalidFilter
     */
    public function __construct(public array $parts)
    {
        4 === \count($parts) || throw InvalidFilter::fourParts();
        $last = 0.0;
        foreach ($parts as [$hertz, $db]) {
            $hertz >= self::LOWEST && $hertz <= self::HIGHEST || throw InvalidFilter::toneOutOfRange(self::LOWEST, self::HIGHEST);
            $hertz > $last || throw InvalidFilter::notRising();
            abs($db) <= self::MOST || throw InvalidFilter::tooMuchTone(self::MOST);
            $last = $hertz;
        }
    }

    /** @return list<Recipe> of those that change something, one after the other */
    public function recipes(): array
    {
        $recipes = [];
        foreach ($this->parts as $i => [$hertz, $db]) {
            if (0.0 !== $db) {
                $recipes[] = match ($i) {
                    0 => Recipe::lowShelf($hertz, $db),
                    3 => Recipe::highShelf($hertz, $db),
                    default => Recipe::bell($hertz, self::Q, $db),
                };
            }
        }

        return $recipes;
    }
}
