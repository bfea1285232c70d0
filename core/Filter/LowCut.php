<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** Takes away what lies below a frequency: a Butterworth high-pass of second or fourth order. */
final readonly class LowCut
{
    public const LOWEST = 20.0;
    public const HIGHEST = 300.0;
    /** Decibels an octave, and the Q of each of its halves: poles evenly on a half circle. */
    private const QS = [12 => [0.7071067811865476], 24 => [0.541196100146197, 1.3065629648763766]];

    /**
     * @param float $hertz at which 3 dB are gone
     * @param int $slope dB an octave: 12 or 24
     *
     * @throws InvalidFilter
     */
    public function __construct(public float $hertz, public int $slope = 12)
    {
        $hertz >= self::LOWEST && $hertz <= self::HIGHEST || throw InvalidFilter::lowCutOutOfRange(self::LOWEST, self::HIGHEST);
        isset(self::QS[$slope]) || throw InvalidFilter::noSuchSlope();
    }

    /** @return non-empty-list<Recipe> one after the other */
    public function recipes(): array
    {
        return array_map(fn (float $q): Recipe => Recipe::highPass($this->hertz, $q), self::QS[$this->slope]);
    }
}
