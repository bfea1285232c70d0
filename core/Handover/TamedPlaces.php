<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** What would have spared the peak guard its work: short dips where a track was too loud, as an edit that can be looked at, made, and undone as one. */
final readonly class TamedPlaces
{
    /** Seconds that a dip is longer at both ends, and of its ramps. */
    private const WIDER = 0.01;
    private const RAMP = 0.04;

    /** dB below what the ceiling asks for, since the rest of the mix sounds, too. */
    private const SPARE = 0.5;

    /**
     * @param list<array{from: int, to: int, at: int, db: float, track: ?string}> $places
     *
     * @return ?array{edit: string, dips: non-empty-list<array<string, mixed>>} null where no clip is to blame that may be changed
     */
    public static function edit(Mix $mix, array $places): ?array
    {
        $dips = [];
        foreach ($places as $place) {
            $track = null === $place['track'] ? null : $mix->tracks[$place['track']] ?? null;
            if (null === $track || $track->locked) {
                continue;
            }
            $wider = (int) (self::WIDER * $mix->rate);
            $span = Span::of(max(0, $place['from'] - $wider), $place['to'] + $wider);
            $clips = array_keys(array_filter($track->clips, static fn (Clip $clip): bool => $clip->span()->meets($span)));
            if ([] !== $clips) {
                $dips[] = ['clips' => array_map(strval(...), $clips), 'from' => $span->from, 'to' => $span->to, 'by' => -round($place['db'] + self::SPARE, 2), 'ramp' => (int) (self::RAMP * $mix->rate)];
            }
        }

        return [] === $dips ? null : ['edit' => 'dips', 'dips' => $dips];
    }
}
