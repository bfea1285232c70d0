<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/**
 * What a pan does to a stereo track: how much of each input reaches each output. At the centre nothing changes.
 * Source: W3C Web Audio API, StereoPannerNode, the equations for stereo input (equal power).
 */
final readonly class Pan
{
    private function __construct(public float $leftToLeft, public float $rightToLeft, public float $leftToRight, public float $rightToRight)
    {
    }

    /** @param float $pan −1 left … 1 right */
    public static function at(float $pan): self
    {
        if ($pan <= 0.0) {
            $x = ($pan + 1.0) * \M_PI / 2.0;

            return 0.0 === $pan ? new self(1.0, 0.0, 0.0, 1.0) : new self(1.0, cos($x), 0.0, sin($x));
        }
        $x = $pan * \M_PI / 2.0;

        return new self(cos($x), 0.0, sin($x), 1.0);
    }

    public function isCentre(): bool
    {
        return 0.0 === $this->rightToLeft && 0.0 === $this->leftToRight && 1.0 === $this->leftToLeft && 1.0 === $this->rightToRight;
    }
}
