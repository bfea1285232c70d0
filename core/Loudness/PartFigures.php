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
        $powers = $peaks = [];
        foreach ($clips as $id) {
            $clip = $mix->clip($id);
            $tenths = $tenthsOf($clip->source);
            $heard = null === $range ? $clip->span() : $range->within($clip->span());
            if (null === $tenths || null === $heard) {
                continue;
            }
            $power = ClipPower::of($mix, $clip, $tenths);
            $of = $power->tenths();
            $first = intdiv($heard->from - $clip->at, $frames);
            $end = intdiv($heard->to - $clip->at - 1, $frames) + 1;
            $place = intdiv($clip->at, $frames);
            for ($k = $first; $k < $end; ++$k) {
                $powers[$place + $k] = ($powers[$place + $k] ?? 0.0) + ($of->powers[$k] ?? 0.0);
                $peaks[$place + $k] = ($peaks[$place + $k] ?? 0.0) + ($of->peaks[$k] ?? 0.0);
            }
        }
        if ([] === $powers) {
            return new self(null, null, null);
        }
        ksort($powers);
        $loudness = \count($powers) < 4 ? self::mean($powers) : Gating::integrated(array_values($powers));
        $peak = [] === $peaks ? 0.0 : max($peaks);

        return new self(null === $loudness ? null : $loudness - self::HALF_DB, $loudness, $peak > 0.0 ? 20.0 * log10($peak) : null);
    }

    /** @param non-empty-array<int, float> $powers */
    private static function mean(array $powers): ?float
    {
        $mean = array_sum($powers) / \count($powers);

        return $mean > 1e-12 ? Gating::loudness($mean) : null;
    }
}
