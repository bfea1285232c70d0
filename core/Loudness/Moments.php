<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** Momentary and short-term loudness along a stretch of time, as a meter shows them while it plays. */
final readonly class Moments
{
    /**
     * Each value is of the window that ends with its 100 ms (EBU Tech 3341).
     *
     * @param list<?float> $momentary LUFS; null for silence, and before the first window is full
     * @param list<?float> $shortTerm LUFS; null likewise
     */
    private function __construct(public array $momentary, public array $shortTerm)
    {
    }

    /**
     * @param array<int, float> $powers weighted mean square of each 100 ms of all time, in order
     * @param int $from number of the first 100 ms wanted
     * @param int $count of them; fewer where the powers end
     */
    public static function of(array $powers, int $from, int $count): self
    {
        $before = min($from, Windows::SHORT_TERM - 1);
        $stretch = \array_slice($powers, $from - $before, $count + $before);
        $wanted = max(0, \count($stretch) - $before);

        return new self(
            self::ending(Windows::momentary($stretch), Windows::MOMENTARY, $before, $wanted),
            self::ending(Windows::shortTerm($stretch), Windows::SHORT_TERM, $before, $wanted),
        );
    }

    /**
     * @param list<float> $windows the first ends with the 100 ms of number length − 1
     *
     * @return list<?float>
     */
    private static function ending(array $windows, int $length, int $from, int $count): array
    {
        $levels = [];
        for ($k = $from; $k < $from + $count; ++$k) {
            $power = $windows[$k - $length + 1] ?? 0.0;
            $levels[] = $power > 1e-10 ? Gating::loudness($power) : null;
        }

        return $levels;
    }
}
