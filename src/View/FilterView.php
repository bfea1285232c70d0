<?php

declare(strict_types=1);

namespace Wattage\App\View;

use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Colour;

/** Filters as the browser plays them. */
final class FilterView
{
    /** @return list<array{float, float, float, float, float}> b0, b1, b2, a1, a2 of each, one after the other */
    public static function of(Colour $colour, int $rate): array
    {
        return array_map(static fn (Biquad $biquad): array => $biquad->coefficients(), $colour->biquads($rate));
    }
}
