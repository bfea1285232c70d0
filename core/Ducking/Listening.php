<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** When the triggers of a rule speak. */
final readonly class Listening
{
    /** Softer than this after its gains, a clip is not heard, dB. */
    private const INAUDIBLE = -60.0;

    /** How much further down the stretches are looked for that are offered as too quiet, dB of sensitivity. */
    private const FURTHER = 6.0;
    private const LEAST_SENSITIVITY = 3.0;

    /** @param Closure(string, float): list<Span> $activityOf source samples, by source id and sensitivity */
    public function __construct(private Closure $activityOf)
    {
    }

    /** @return list<Moment> apart and in order, pauses bridged */
    public function to(DuckRule $rule, Mix $mix): array
    {
        $sensitivity = $rule->sensitivity ?? $mix->aim->sensitivity;
        $timing = $rule->timing;
        $spoken = $this->spoken($rule, $mix);
        $dropped = $rule->dropped;
        $isDropped = static fn (Span $span): bool => [] !== array_filter($dropped, static fn (Span $d): bool => $d->meets($span));
        $moments = [];
        $kept = $rule->added;
        foreach (Spans::union($spoken, $timing->bridge) as $span) {
            if ($isDropped($span)) {
                $moments[] = new Moment($span, Heard::Dropped);
            } elseif ($span->length() < $timing->ignore) {
                $moments[] = new Moment($span, Heard::TooShort);
            } else {
                $kept[] = $span;
            }
        }
        foreach (Spans::union($kept, $timing->bridge) as $span) {
            $isAdded = [] !== array_filter($rule->added, static fn (Span $a): bool => $a->meets($span));
            $moments[] = new Moment($span, $isAdded ? Heard::Added : Heard::Found);
        }
        $known = array_map(static fn (Moment $m): Span => $m->span, $moments);
        $further = Spans::union($this->spoken($rule, $mix, max(self::LEAST_SENSITIVITY, $sensitivity - self::FURTHER)), $timing->bridge);
        foreach (Spans::minus($further, $known) as $span) {
            // What only makes a found stretch a little longer is nothing of its own.
            if ($span->length() >= max($timing->ignore, intdiv($mix->rate, 5))) {
                $moments[] = new Moment($span, Heard::TooQuiet);
            }
        }
        usort($moments, static fn (Moment $a, Moment $b): int => $a->span->from <=> $b->span->from);

        return $moments;
    }

    /**
     * @param ?float $sensitivity null for that of the rule
     *
     * @return list<Span> timeline samples at which the triggers speak, apart and in order; pauses are pauses
     */
    public function spoken(DuckRule $rule, Mix $mix, ?float $sensitivity = null): array
    {
        $sensitivity ??= $rule->sensitivity ?? $mix->aim->sensitivity;
        if ([] !== $mix->captions && [] === $rule->triggers && [] === $rule->clips) {
            return Spans::union(array_map(static fn (Cue $cue): Span => $cue->span, $mix->captions));
        }
        $spans = [];
        $tracks = $rule->tracksHeard($mix);
        foreach ($mix->tracks as $id => $track) {
            if ($track->isSilent()) {
                continue;
            }
            $isHeard = \in_array((string) $id, $tracks, true);
            foreach ($track->clips as $clip) {
                if ($clip->triggers && !$clip->muted && ($isHeard || \in_array($clip->id, $rule->clips, true)) && !$clip->gain->isSilence()) {
                    array_push($spans, ...$this->inClip($clip, ($this->activityOf)($clip->source, $sensitivity)));
                }
            }
        }

        return Spans::union($spans);
    }

    /** @return list<Span> timeline samples at which somebody speaks on a track, whatever its stem, apart and in order */
    public function spokenOn(Track $track, float $sensitivity): array
    {
        $spans = [];
        foreach ($track->isSilent() ? [] : $track->clips as $clip) {
            if (!$clip->muted && !$clip->gain->isSilence()) {
                array_push($spans, ...$this->inClip($clip, ($this->activityOf)($clip->source, $sensitivity)));
            }
        }

        return Spans::union($spans);
    }

    /**
     * @param list<Span> $active source samples, apart and in order
     *
     * @return list<Span> timeline samples
     */
    private function inClip(Clip $clip, array $active): array
    {
        $spans = [];
        foreach (Spans::within($active, $clip->heard()) as $heard) {
            if (self::isAudible($clip, $heard)) {
                $spans[] = $heard->shifted($clip->at - $clip->in);
            }
        }

        return $spans;
    }

    private static function isAudible(Clip $clip, Span $span): bool
    {
        if ($clip->curve->isFlat()) {
            return true;
        }
        foreach ([0.1, 0.5, 0.9] as $part) {
            if ($clip->curve->levelAt($span->from + (int) ($part * $span->length()))->db + $clip->gain->db > self::INAUDIBLE) {
                return true;
            }
        }

        return false;
    }
}
