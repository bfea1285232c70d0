<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** The dips that clear buried speech, as an edit that can be looked at, made, and undone as one. */
final class ClearAll
{
    /** Seconds: fully down this long before the speech and after it, and the way there. */
    private const LEAD = 0.1;
    private const RAMP = 0.4;

    /**
     * @param list<Buried> $stretches
     *
     * @return ?array{edit: string, dips: non-empty-list<array<string, mixed>>} JSON of the edit; null where no dip helps
     */
    public static function edit(Mix $mix, array $stretches): ?array
    {
        $wanted = [];
        foreach ($stretches as $stretch) {
            if (null !== $stretch->dip) {
                foreach ($stretch->dipped as $track) {
                    $wanted[$track][] = [$stretch->span, $stretch->dip];
                }
            }
        }
        $dips = [];
        foreach ($wanted as $track => $ranges) {
            foreach (self::joined($ranges, $mix->rate) as [$span, $by]) {
                $clips = self::clipsIn($mix->track((string) $track), $span);
                if ([] !== $clips) {
                    $dips[] = ['clips' => $clips, 'from' => $span->from, 'to' => $span->to, 'by' => round($by, 2), 'ramp' => (int) (self::RAMP * $mix->rate)];
                }
            }
        }

        return [] === $dips ? null : ['edit' => 'dips', 'dips' => $dips];
    }

    /**
     * What lifts the speech of a stretch instead.
     *
     * @return ?array<string, mixed>
     */
    public static function lift(Mix $mix, Buried $stretch): ?array
    {
        $clips = [];
        foreach ($mix->tracks as $track) {
            if (Stem::Speech === $track->stem && !$track->locked && !$track->muted) {
                array_push($clips, ...self::clipsIn($track, $stretch->span));
            }
        }

        return null === $stretch->lift || [] === $clips ? null : ['edit' => 'dip-range', 'clips' => $clips, 'from' => $stretch->span->from, 'to' => $stretch->span->to, 'by' => round($stretch->lift, 2), 'ramp' => (int) (self::LEAD * $mix->rate)];
    }

    /** @return list<string> ids of the clips of a track that lie in a span */
    private static function clipsIn(Track $track, Span $span): array
    {
        return array_map(strval(...), array_keys(array_filter($track->clips, static fn (Clip $clip): bool => $clip->span()->meets($span))));
    }

    /**
     * Ramps that ran into one another would add up, so that stretches that close are one dip, as deep as the deeper needs.
     *
     * @param list<array{Span, float}> $ranges in the order of time
     *
     * @return list<array{Span, float}>
     */
    private static function joined(array $ranges, int $rate): array
    {
        $lead = (int) (self::LEAD * $rate);
        $reach = 2 * (int) (self::RAMP * $rate);
        $joined = [];
        foreach ($ranges as [$span, $by]) {
            $span = Span::of(max(0, $span->from - $lead), $span->to + $lead);
            $last = array_pop($joined);
            if (null !== $last && $span->from - $last[0]->to >= $reach) {
                $joined[] = $last;
                $last = null;
            }
            $joined[] = null === $last ? [$span, $by] : [Span::of($last[0]->from, max($last[0]->to, $span->to)), min($last[1], $by)];
        }

        return $joined;
    }
}
