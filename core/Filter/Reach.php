<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** How far filters can lift a sample: the sum of what is left of a single one, whatever comes before and after it. */
final class Reach
{
    /** Samples after which nothing is left that counts: half a second at 48 kHz. */
    private const LENGTH = 24_000;

    /**
     * @param list<Biquad> $biquads
     *
     * @return float gain ≥ 0
     */
    public static function of(array $biquads): float
    {
        /** @var array<string, float> $known */
        static $known = [];
        if ([] === $biquads) {
            return 1.0;
        }
        $key = serialize($biquads);

        return $known[$key] ??= array_sum(array_map(abs(...), (new Cascade($biquads))->mono([1.0, ...array_fill(0, self::LENGTH - 1, 0.0)])));
    }
}
