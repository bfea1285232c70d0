<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

/** ITU-R BS.1770, Annex 2: the coefficients of its oversampling filter, in parts of 8192. */
final class AnnexTwo
{
    /** Two of the four phases; the others are the same backwards. */
    public const PHASES = [
        [14, 90, -161, 272, -487, 1125, 7964, -838, 390, -218, 122, -68],
        [-239, 240, -424, 730, -1364, 3810, 6388, -1641, 832, -477, 271, -155],
    ];
}
