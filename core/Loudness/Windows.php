<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Generator;

/** Powers over the windows of EBU Tech 3341, every 100 ms; each entry is of the window that ends with that 100 ms. */
final class Windows
{
    public const MOMENTARY = 4;
    public const SHORT_TERM = 30;

    /**
     * @param array<int, float> $powers of each 100 ms, in order
     *
     * @return list<float> of each 400 ms; none for less
     */
    public static function momentary(array $powers): array
    {
        return self::over($powers, self::MOMENTARY);
    }

    /**
     * All windows of a length along a row, a piece at a time; none where it is shorter.
     *
     * @return Generator<int, list<float>> by the number of the first window of each
     */
    public static function along(Series $powers, int $length): Generator
    {
        for ($from = 0, $n = \count($powers) - $length + 1; $from < $n; $from += Series::AT_ONCE) {
            yield $from => self::over($powers->slice($from, Series::AT_ONCE + $length - 1), $length);
        }
    }

    /** @return array<int, float> of the windows that end with some of the 100 ms, by the number of that; none where there is no whole window yet */
    public static function ending(Series $powers, int $length, int $from, int $count): array
    {
        $first = max(0, $from - $length + 1);
        $windows = self::over($powers->slice($first, $from + $count - $first), $length);

        return [] === $windows ? [] : array_combine(range($first + $length - 1, $first + $length - 2 + \count($windows)), $windows);
    }

    /**
     * @param array<int, float> $powers
     *
     * @return list<float>
     */
    private static function over(array $powers, int $length): array
    {
        $n = \count($powers);
        if ($n < $length) {
            return [];
        }
        $means = array_fill(0, $n - $length + 1, 0.0);
        $sum = 0.0;
        for ($i = 0; $i < $n; ++$i) {
            $sum += $powers[$i];
            if ($i >= $length - 1) {
                $means[$i - $length + 1] = $sum > 0.0 ? $sum / $length : 0.0;
                $sum -= $powers[$i - $length + 1];
            }
            // What adding and taking away leaves behind is forgotten where everything is silent.
            if (0.0 === $powers[$i] && $sum < 1e-14) {
                $sum = 0.0;
            }
        }

        return array_values($means);
    }
}
