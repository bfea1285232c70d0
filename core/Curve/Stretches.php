<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/** Rows of stretches that follow one another without gap. */
final class Stretches
{
    /**
     * Two rows as one.
     *
     * @param non-empty-list<Stretch> $a
     * @param non-empty-list<Stretch> $b covering at least what $a does
     *
     * @return non-empty-list<Stretch>
     */
    public static function product(array $a, array $b): array
    {
        $product = [];
        $j = 0;
        foreach ($a as $stretch) {
            $from = $stretch->from;
            while ($b[$j]->to <= $from && isset($b[$j + 1])) {
                ++$j;
            }
            for ($k = $j; $from < $stretch->to; ++$k) {
                $other = $b[$k] ?? $b[\count($b) - 1];
                $to = isset($b[$k + 1]) ? min($stretch->to, $other->to) : $stretch->to;
                $product[] = $stretch->cut($from, $to)->times($other);
                $from = $to;
            }
        }

        return [] === $product ? $a : $product;
    }

    /**
     * @param list<Stretch> $stretches
     *
     * @return list<Stretch> what of them lies over [$from, $to)
     */
    public static function within(array $stretches, int $from, int $to): array
    {
        $within = [];
        foreach ($stretches as $stretch) {
            if ($stretch->to > $from && $stretch->from < $to) {
                $within[] = $stretch->cut(max($from, $stretch->from), min($to, $stretch->to));
            }
        }

        return $within;
    }
}
