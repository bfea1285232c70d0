<?php

declare(strict_types=1);

namespace Wattage\App\View;

use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\Recipe;

/** Filters as the browser plays them. */
final class FilterView
{
    /** @return list<array{kind: string, hertz: float, q: float, db: float}> one after the other */
    public static function of(Colour $colour): array
    {
        return array_map(self::one(...), $colour->recipes());
    }

    /** @return array{kind: string, hertz: float, q: float, db: float} */
    public static function one(Recipe $recipe): array
    {
        return ['kind' => $recipe->kind->value, 'hertz' => $recipe->hertz, 'q' => $recipe->q, 'db' => $recipe->db];
    }
}
