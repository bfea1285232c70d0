<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Closure;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** When somebody speaks in a mix: as its captions say, or else the activity of all clips on speech tracks that are heard. */
final class SpeechTimes
{
    /**
     * @param Closure(string): list<Span> $activityOf source samples, apart and in order, by source id
     *
     * @return list<Span> timeline samples, apart and in order
     */
    public static function of(Mix $mix, Closure $activityOf): array
    {
        if ([] !== $mix->captions) {
            return Spans::union(array_map(static fn (Cue $cue): Span => $cue->span, $mix->captions));
        }
        $spans = [];
        foreach ($mix->tracks as $track) {
            array_push($spans, ...self::ofTrack($track, $activityOf));
        }

        return Spans::union($spans);
    }

    /**
     * @param Closure(string): list<Span> $activityOf source samples, apart and in order, by source id
     *
     * @return list<Span> timeline samples at which somebody is heard to speak on a track; none on one that is not for speech
     */
    public static function ofTrack(Track $track, Closure $activityOf): array
    {
        $spans = [];
        foreach (Stem::Speech !== $track->stem || $track->isSilent() ? [] : $track->clips as $clip) {
            foreach ($clip->muted || $clip->gain->isSilence() ? [] : Spans::within($activityOf($clip->source), $clip->heard()) as $heard) {
                $spans[] = $heard->shifted($clip->at - $clip->in);
            }
        }

        return Spans::union($spans);
    }

    /**
     * @param list<Span> $speech samples
     * @param int $frames samples of 100 ms
     * @param int $count of 100 ms that there are
     *
     * @return string one byte for each 100 ms: 1 where speech takes at least half of it, else 0
     */
    public static function tenths(array $speech, int $frames, int $count): string
    {
        $active = str_repeat("\0", $count);
        foreach ($speech as $span) {
            $end = min($count, intdiv($span->to + intdiv($frames, 2), $frames));
            for ($k = intdiv($span->from + intdiv($frames, 2), $frames); $k < $end; ++$k) {
                $active[$k] = "\1";
            }
        }

        return $active;
    }
}
