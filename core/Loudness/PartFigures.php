<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** How loud clips, or what of them lies in a range, are heard together; from what their sources were measured at. */
final readonly class PartFigures
{
    /** Power over both sides of the bus to average level: that of one of them. */
    private const HALF_DB = 3.0102999566398;

    /**
     * @param ?float $average gated, K-weighted, dBFS; null for silence
     * @param ?float $loudness integrated over the part, LUFS; over less than 400 ms its mean
     * @param ?float $peak dBFS that no sample passes
     */
    private function __construct(public ?float $average, public ?float $loudness, public ?float $peak)
    {
    }

    /**
     * @param list<string> $clips
     * @param ?Span $range timeline samples; null for the clips as a whole
     * @param Closure(string): ?SourceTenths $tenthsOf by source id
     */
    public static function of(Mix $mix, array $clips, ?Span $range, Closure $tenthsOf): self
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $rows = [];
        foreach ($clips as $id) {
            $clip = $mix->clip($id);
            $tenths = $tenthsOf($clip->source);
            $heard = null === $range ? $clip->span() : $range->within($clip->span());
            if (null !== $tenths && null !== $heard) {
                $first = intdiv($heard->from - $clip->at, $frames);
                $rows[] = [ClipPower::of($mix, $clip, $tenths)->tenths(), $first, intdiv($heard->to - $clip->at - 1, $frames) + 1, intdiv($clip->at, $frames)];
            }
        }
        $powers = self::together($rows, static fn (TrackPower $power): Series => $power->powers);
        if (0 === \count($powers)) {
            return new self(null, null, null);
        }
        $loudness = \count($powers) < Windows::MOMENTARY ? self::mean($powers->values()) : Predicted::of($powers, 0.0)->integrated;
        $peak = self::together($rows, static fn (TrackPower $power): Series => $power->peaks)->highest();

        return new self(null === $loudness ? null : $loudness - self::HALF_DB, $loudness, $peak > 0.0 ? 20.0 * log10($peak) : null);
    }

    /**
     * The sum of several clips where at least one of them sounds, without what lies between.
     *
     * @param list<array{TrackPower, int, int, int}> $rows each with the first and last + 1 of the 100 ms of it that are wanted, and where it begins on the timeline
     * @param Closure(TrackPower): Series $of
     */
    private static function together(array $rows, Closure $of): Series
    {
        $packed = '';
        $from = [] === $rows ? 0 : min(array_map(static fn (array $row): int => $row[3] + $row[1], $rows));
        $to = [] === $rows ? 0 : max(array_map(static fn (array $row): int => $row[3] + $row[2], $rows));
        for ($page = $from; $page < $to; $page += Series::AT_ONCE) {
            $sum = [];
            foreach ($rows as [$power, $first, $end, $place]) {
                $low = max($page, $place + $first);
                $count = min($page + Series::AT_ONCE, $place + $end) - $low;
                foreach ($count > 0 ? $of($power)->slice($low - $place, $count) : [] as $i => $value) {
                    $sum[$low + $i] = ($sum[$low + $i] ?? 0.0) + $value;
                }
            }
            ksort($sum);
            $packed .= Series::packed($sum);
        }

        return Series::fromBytes($packed);
    }

    /** @param array<int, float> $powers at least one */
    private static function mean(array $powers): ?float
    {
        $mean = array_sum($powers) / \count($powers);

        return $mean > 1e-12 ? Gating::loudness($mean) : null;
    }
}
