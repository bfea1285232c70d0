<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Captions\Cue;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Rearrangement;
use Wattage\Core\Time\Span;

/**
 * Takes along, when parts of a programme went elsewhere, what lies over them: lanes and ducking of tracks, captions, markers, accepted stretches, and
 * what rules were told by hand. {@see Retiming} does so where time is only put in or taken out.
 *
 * Where two parts meet that did not before, a lane goes from one level to the other within 10 ms; over new time it holds what it had.
 */
final readonly class Rearranging
{
    /** Samples that a lane takes across a seam: 10 ms at 48 kHz. */
    private const SEAM = 480;

    public function __construct(private Rearrangement $map)
    {
    }

    public function lanes(Lanes $lanes): Lanes
    {
        return $this->map->changesNothing() ? $lanes : new Lanes($this->curve($lanes->level), $this->pan($lanes->pan), $this->mute($lanes->mute), $lanes->off);
    }

    public function ducking(Ducking $ducking): Ducking
    {
        return $this->map->changesNothing() ? $ducking : $ducking->rearranged($this->curve($ducking->curve), $this->map->span(...));
    }

    /** All that belongs to no track. */
    public function programme(Mix $mix): Mix
    {
        if ($this->map->changesNothing()) {
            return $mix;
        }
        $captions = [];
        foreach ($mix->captions as $cue) {
            $span = $this->map->span($cue->span);
            null === $span || $captions[] = new Cue($span, $cue->text);
        }
        usort($captions, static fn (Cue $a, Cue $b): int => $a->span->from <=> $b->span->from);
        $accepted = [];
        foreach ($mix->aim->accepted as $stretch) {
            $span = $this->map->span($stretch->span);
            null === $span || $accepted[] = new Accepted($span, $stretch->note);
        }
        usort($accepted, static fn (Accepted $a, Accepted $b): int => $a->span->from <=> $b->span->from);
        $markers = [];
        foreach ($mix->markers as $marker) {
            $at = $this->map->moment($marker->at);
            null === $at || $markers[$marker->id] = new Marker($marker->id, $at, $marker->name);
        }
        $mix = $mix->withCaptions($captions)->withAim($mix->aim->with(accepted: $accepted))->withMarkers($markers);

        return array_reduce($mix->rules, fn (Mix $so, DuckRule $rule): Mix => [] === $rule->added && [] === $rule->dropped ? $so : $so->withRule($rule->withSpans($this->spans($rule->added), $this->spans($rule->dropped))), $mix);
    }

    private function curve(Curve $curve): Curve
    {
        if ($curve->isFlat()) {
            return $curve;
        }
        $keyframes = [];
        $end = null;
        foreach ($this->map->pieces as $i => [$span, $by]) {
            $meets = $end === $span->from + $by;
            $end = $span->to + $by;
            $last = array_pop($keyframes);
            $level = $curve->levelAt($span->from);
            $from = $meets && !$last?->level->equals($level) ? $span->from + self::SEAM : $span->from;
            $framed = null === $last && [] === $curve->before($from) ? $curve : $curve->withKeyframeAt($from);
            $framed = isset($this->map->pieces[$i + 1]) ? $framed->withKeyframeAt($span->to) : $framed;
            $part = array_values(array_filter($framed->from($from), static fn (Keyframe $k): bool => $k->position <= $span->to));
            if (null !== $last && [] !== $part && $last->position < $part[0]->position + $by) {
                $keyframes[] = $last->withRamp($meets ? self::across($last->level, $part[0]->level) : Ramp::hold());
            } elseif (null !== $last && [] === $part) {
                // A piece shorter than the seam.
                $keyframes[] = $last;
            }
            array_push($keyframes, ...array_map(static fn (Keyframe $k): Keyframe => $k->at($k->position + $by), $part));
        }

        return Curve::of(self::withoutIdle($keyframes));
    }

    private static function across(Decibels $from, Decibels $to): Ramp
    {
        return $from->isSilence() || $to->isSilence() ? Ramp::of(RampKind::Gain) : Ramp::line();
    }

    /**
     * Without those between two of the same level.
     *
     * @param list<Keyframe> $keyframes
     *
     * @return list<Keyframe>
     */
    private static function withoutIdle(array $keyframes): array
    {
        $kept = [];
        foreach ($keyframes as $i => $keyframe) {
            $before = $kept[\count($kept) - 1] ?? null;
            $after = $keyframes[$i + 1] ?? $keyframe;
            $idle = null !== $before && $before->level->equals($keyframe->level) && $keyframe->level->equals($after->level);
            $idle || $kept[] = $keyframe;
        }

        return $kept;
    }

    private function pan(PanLane $lane): PanLane
    {
        if ($lane->isEmpty()) {
            return $lane;
        }
        $points = [];
        $end = null;
        foreach ($this->map->pieces as $i => [$span, $by]) {
            $from = $span->from + ($end === $span->from + $by ? self::SEAM : 0);
            if ($from >= $span->to) {
                continue;
            }
            $to = $span->to - 1;
            $inside = array_filter($lane->points, static fn (array $p): bool => $p[0] > $from && $p[0] < $to);
            $part = [[$from, $lane->at($from)], ...$inside, ...(isset($this->map->pieces[$i + 1]) ? [[$to, $lane->at($to)]] : [])];
            foreach ($part as [$at, $pan]) {
                $at + $by > ($points[\count($points) - 1][0] ?? -1) && $points[] = [$at + $by, $pan];
            }
            $end = $span->to + $by;
        }

        return new PanLane($points);
    }

    private function mute(MuteLane $lane): MuteLane
    {
        if ($lane->isEmpty()) {
            return $lane;
        }
        $switches = [];
        $muted = false;
        foreach ($this->map->pieces as [$span, $by]) {
            $inside = array_filter($lane->switches, static fn (array $s): bool => $s[0] > $span->from && $s[0] < $span->to);
            foreach ([[$span->from, $lane->at($span->from)], ...$inside] as [$at, $muting]) {
                if ($muting !== $muted) {
                    $switches[] = [$at + $by, $muting];
                    $muted = $muting;
                }
            }
        }

        return new MuteLane($switches);
    }

    /**
     * @param list<Span> $spans
     *
     * @return list<Span>
     */
    private function spans(array $spans): array
    {
        $moved = array_values(array_filter(array_map($this->map->span(...), $spans)));
        usort($moved, static fn (Span $a, Span $b): int => $a->from <=> $b->from);

        return $moved;
    }
}
