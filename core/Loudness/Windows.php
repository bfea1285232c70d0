<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

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
     * @param array<int, float> $powers of each 100 ms, in order
     *
     * @return list<float> of each 3 s; none for less
     */
    public static function shortTerm(array $powers): array
    {
        return self::over($powers, self::SHORT_TERM);
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
