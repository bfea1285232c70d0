<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;
use Wattage\Core\Timeline\DuckRule;

/** A track of speech goes down in its own pauses. */
final class Hush
{
    /** Seconds before a word in which people draw breath [CP]. */
    private const BREATH = 0.6;
    /** Seconds; down for less than this is a flutter. */
    private const SHORTEST = 0.2;

    /**
     * @param list<Span> $spoken timeline samples at which the track speaks, apart and in order
     *
     * @return list<Dip>
     */
    public static function of(DuckRule $rule, array $spoken, int $length, int $rate): array
    {
        $timing = $rule->timing;
        $spoken = array_values(array_filter(Spans::union($spoken, $timing->bridge), static fn (Span $span): bool => $span->length() >= $timing->ignore));
        $lead = $rule->breaths ? max($timing->lead, (int) (self::BREATH * $rate)) : $timing->lead;
        $dips = [];
        $from = 0;
        foreach ([...$spoken, null] as $span) {
            $to = null === $span ? $length : $span->from - $lead - $timing->rise;
            if ($to - $from >= (int) (self::SHORTEST * $rate)) {
                $dips[] = new Dip($from, $to, $rule->limit(), $timing->fall, $timing->rise);
            }
            $from = null === $span ? $length : $span->to + $timing->hold + $timing->fall;
        }

        return $dips;
    }
}
