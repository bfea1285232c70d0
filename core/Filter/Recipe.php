<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** What a filter is asked to be. The renderer makes numbers of it, at whatever rate; the player has filters of its own that are asked the same. */
final readonly class Recipe
{
    private function __construct(public FilterKind $kind, public float $hertz, public float $q, public float $db)
    {
    }

    public static function highPass(float $hertz, float $q): self
    {
        return new self(FilterKind::HighPass, $hertz, $q, 0.0);
    }

    public static function bell(float $hertz, float $q, float $db): self
    {
        return new self(FilterKind::Bell, $hertz, $q, $db);
    }

    /** Its slope is always the steepest that does not overshoot, which is what a Q of 0.71 would be. */
    public static function lowShelf(float $hertz, float $db): self
    {
        return new self(FilterKind::LowShelf, $hertz, \M_SQRT1_2, $db);
    }

    public static function highShelf(float $hertz, float $db): self
    {
        return new self(FilterKind::HighShelf, $hertz, \M_SQRT1_2, $db);
    }

    /** @param int $rate samples per second */
    public function biquad(int $rate): Biquad
    {
        return match ($this->kind) {
            FilterKind::HighPass => Biquad::highPass($this->hertz, $this->q, $rate),
            FilterKind::Bell => Biquad::peaking($this->hertz, $this->q, $this->db, $rate),
            FilterKind::LowShelf => Biquad::lowShelf($this->hertz, $this->db, $rate),
            FilterKind::HighShelf => Biquad::highShelf($this->hertz, $this->db, $rate),
        };
    }
}
