<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Closure;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** When somebody speaks in a mix: as its captions say, or else the activity of all clips on speech tracks that are heard. */
final class SpeechTimes
{
    /**
     * @param Closure(string): list<Span> $activityOf source samples, by source id
     *
     * @return list<Span> timeline samples, apart and in order
     */
    public static function of(Mix $mix, Closure $activityOf): array
    {
        if ([] !== $mix->captions) {
            return self::union(array_map(static fn (Cue $cue): Span => $cue->span, $mix->captions));
        }
        $spans = [];
        foreach ($mix->tracks as $track) {
            if (Stem::Speech !== $track->stem || $track->muted || $track->fader->isSilence()) {
                continue;
            }
            foreach ($track->clips as $clip) {
                foreach ($clip->gain->isSilence() ? [] : $activityOf($clip->source) as $active) {
                    $heard = $active->within($clip->heard());
                    null === $heard || $spans[] = $heard->shifted($clip->at - $clip->in);
                }
            }
        }

        return self::union($spans);
    }

    /**
     * @param list<Span> $speech samples
     * @param int $frames samples of 100 ms
     * @param int $count of 100 ms that there are
     *
     * @return array<int, true> numbers of the 100 ms of which speech takes at least half
     */
    public static function tenths(array $speech, int $frames, int $count): array
    {
        $active = [];
        foreach ($speech as $span) {
            $end = min($count, intdiv($span->to + intdiv($frames, 2), $frames));
            for ($k = intdiv($span->from + intdiv($frames, 2), $frames); $k < $end; ++$k) {
                $active[$k] = true;
            }
        }

        return $active;
    }

    /**
     * @param list<Span> $spans
     *
     * @return list<Span>
     */
    private static function union(array $spans): array
    {
        usort($spans, static fn (Span $a, Span $b): int => $a->from <=> $b->from);
        $union = [];
        foreach ($spans as $span) {
            $last = array_pop($union);
            if (null !== $last && $span->from > $last->to) {
                $union[] = $last;
                $last = null;
            }
            $union[] = null === $last ? $span : Span::of($last->from, max($last->to, $span->to));
        }

        return $union;
    }
}
