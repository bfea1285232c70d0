<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** How loud something is along its length, in a few columns: enough to know it again by. */
final class Skyline
{
    /**
     * @param Series $powers of each 100 ms
     * @param positive-int $columns
     *
     * @return list<?float> loudness of each column, LUFS (ITU-R BS.1770, without gates); null where it is silent
     */
    public static function of(Series $powers, int $columns): array
    {
        $count = $powers->count();
        $columns = min($columns, $count);
        $line = [];
        for ($column = 0; $column < $columns; ++$column) {
            $from = intdiv($column * $count, $columns);
            $values = $powers->slice($from, max(1, intdiv(($column + 1) * $count, $columns) - $from));
            $mean = array_sum($values) / max(1, \count($values));
            $line[] = $mean > 0.0 ? round(Gating::loudness($mean), 1) : null;
        }

        return $line;
    }
}
