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
     * @param Series $powers weighted mean square of each 100 ms of all time, in order
     * @param int $from number of the first 100 ms wanted
     * @param int $count of them; fewer where the powers end
     */
    public static function of(Series $powers, int $from, int $count): self
    {
        $of = static fn (int $length): array => self::levels(Windows::ending($powers, $length, $from, $count), $from, min($count, \count($powers) - $from));

        return new self($of(Windows::MOMENTARY), $of(Windows::SHORT_TERM));
    }

    /**
     * @param array<int, float> $windows by the number of the 100 ms that they end with
     *
     * @return list<?float>
     */
    private static function levels(array $windows, int $from, int $count): array
    {
        $levels = [];
        for ($k = $from; $k < $from + $count; ++$k) {
            $power = $windows[$k] ?? 0.0;
            $levels[] = $power > 1e-10 ? Gating::loudness($power) : null;
        }

        return $levels;
    }
}
