<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Captions\Cue;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\TimeMap;

/**
 * Moves what has a time by a map: on tracks their lanes, and, where it is the time of the whole programme, captions, markers, pictures, accepted
 * stretches and what rules were told by hand. Clips are moved by the edits themselves, by the same map.
 *
 * Blank time holds what a lane had where it was put in. Where time was taken out of a lane that moved in it, the lane goes from one level to the
 * other within 10 ms.
 */
final readonly class Retiming
{
    /** Samples that a lane takes across a seam: 10 ms at 48 kHz. */
    private const SEAM = 480;

    public function __construct(private TimeMap $map)
    {
    }

    /**
     * The lanes of some tracks. Their ducking goes along where all that it listens to does; what listens to tracks that stay must stay with them.
     *
     * @param list<string> $ids
     */
    public function tracks(Mix $mix, array $ids): Mix
    {
        $after = $mix;
        foreach ($ids as $id) {
            $track = $mix->track($id);
            $lanes = new Lanes($this->curve($track->lanes->level), $this->pan($track->lanes->pan), $this->mute($track->lanes->mute), $track->lanes->off);
            $track = $lanes == $track->lanes ? $track : $track->withLanes($lanes);
            foreach ([false, true] as $band) {
                $ducking = $track->givingWay($band);
                if (!$ducking->isEmpty() && [] === array_diff($this->heardFor($mix, $id), $ids)) {
                    $track = $track->withGivingWay($band, $ducking->rearranged($this->curve($ducking->curve), $this->map->span(...)));
                }
            }
            $after = $track === $mix->track($id) ? $after : $after->withTrack($track);
        }

        return $after;
    }

    /** All that belongs to no track. */
    public function programme(Mix $mix): Mix
    {
        $captions = [];
        foreach ($mix->captions as $cue) {
            $span = $this->map->span($cue->span);
            null === $span || $captions[] = $span == $cue->span ? $cue : new Cue($span, $cue->text);
        }
        $mix = $captions === $mix->captions ? $mix : $mix->withCaptions($captions);
        $accepted = [];
        foreach ($mix->aim->accepted as $stretch) {
            $span = $this->map->span($stretch->span);
            null === $span || $accepted[] = new Accepted($span, $stretch->note);
        }
        $mix = [] === $mix->aim->accepted ? $mix : $mix->withAim($mix->aim->with(accepted: $accepted));
        foreach ($mix->rules as $rule) {
            $mix = [] === $rule->added && [] === $rule->dropped ? $mix : $mix->withRule($rule->withSpans($this->spans($rule->added), $this->spans($rule->dropped)));
        }
        $markers = [];
        foreach ($mix->markers as $marker) {
            $at = $this->map->moment($marker->at);
            null === $at || $markers[$marker->id] = $at === $marker->at ? $marker : new Marker($marker->id, $at, $marker->name);
        }

        return $this->pictures($markers === $mix->markers ? $mix : $mix->withMarkers($markers));
    }

    /** The same levels at the same sounds. */
    private function curve(Curve $curve): Curve
    {
        $at = $this->map->at;
        $after = $this->map->after();
        if ([] === $curve->from($at)) {
            return $curve;
        }
        if ($this->beginsWith([] === $curve->before($at))) {
            return Curve::of($this->moved((0 === $this->map->removed ? $curve : $curve->withKeyframeAt($after))->from($after)));
        }
        $cut = $curve->withKeyframeAt($at);
        $level = $cut->levelAt($at);
        if (0 === $this->map->removed) {
            return Curve::of([...$cut->before($at), new Keyframe($at, $level, Ramp::hold()), ...$this->moved($cut->from($at))]);
        }
        $next = $curve->levelAt($after);
        if ($level->equals($next)) {
            return Curve::of([...$cut->before($at), ...$this->moved($curve->withKeyframeAt($after)->from($after))]);
        }
        $ramp = $level->isSilence() || $next->isSilence() ? Ramp::of(RampKind::Gain) : Ramp::line();

        return Curve::of([...$cut->before($at), new Keyframe($at, $level, $ramp), ...$this->moved($curve->withKeyframeAt($after + self::SEAM)->from($after + self::SEAM))]);
    }

    private function pan(PanLane $lane): PanLane
    {
        $at = $this->map->at;
        $before = array_values(array_filter($lane->points, static fn (array $p): bool => $p[0] < $at));
        if (\count($before) === \count($lane->points)) {
            return $lane;
        }
        $begins = $this->beginsWith([] === $before);
        $goesOn = $this->map->after() + ($begins || 0 === $this->map->removed ? 0 : self::SEAM);
        $seam = [...($begins ? [] : [[$at, $lane->at($at)]]), ...($begins && 0 === $this->map->removed ? [] : [[$goesOn + $this->map->shift(), $lane->at($goesOn)]])];
        $rest = array_filter($lane->points, static fn (array $p): bool => $p[0] > $goesOn || ([] === $seam && $p[0] === $goesOn));

        return new PanLane([...$before, ...$seam, ...array_values(array_map(fn (array $p): array => [$p[0] + $this->map->shift(), $p[1]], $rest))]);
    }

    /** Whether a lane has nothing before the seam that would have to be led across it. */
    private function beginsWith(bool $nothingBefore): bool
    {
        return 0 === $this->map->at || ($nothingBefore && 0 === $this->map->removed);
    }

    private function mute(MuteLane $lane): MuteLane
    {
        if ($lane->isEmpty()) {
            return $lane;
        }
        $switches = array_values(array_filter($lane->switches, fn (array $s): bool => $s[0] < $this->map->at));
        $muted = [] !== $switches && $switches[\count($switches) - 1][1];
        // As it is after what was taken out.
        $rest = 0 === $this->map->removed ? [] : [[$this->map->after(), $lane->at($this->map->after())]];
        foreach ([...$rest, ...array_filter($lane->switches, fn (array $s): bool => $s[0] >= $this->map->after())] as [$at, $muting]) {
            if ($muting !== $muted) {
                $switches[] = [$at + $this->map->shift(), $muting];
                $muted = $muting;
            }
        }

        return new MuteLane($switches);
    }

    /** Pictures by themselves are cut as sound is. */
    private function pictures(Mix $mix): Mix
    {
        if ([] === $mix->pictures) {
            return $mix;
        }
        $after = $mix;
        $ids = new FreshIds($mix);
        foreach ($mix->pictures as $picture) {
            $after = $after->withoutPicture($picture->id);
            $left = $picture->span()->within(Span::of(\PHP_INT_MIN, $this->map->at));
            $right = $picture->span()->within(Span::of($this->map->after(), \PHP_INT_MAX));
            if (null !== $left) {
                $after = $after->withPicture($picture->trimmedTo($left));
            }
            if (null !== $right) {
                $part = $picture->trimmedTo($right)->movedTo($right->from + $this->map->shift());
                $after = $after->withPicture(null === $left ? $part : $part->called($ids->after($picture->id)));
            }
        }

        return $after;
    }

    /**
     * @param list<Span> $spans
     *
     * @return list<Span>
     */
    private function spans(array $spans): array
    {
        return array_values(array_filter(array_map($this->map->span(...), $spans)));
    }

    /** @return list<string> tracks that the ducking of a track listens to */
    private function heardFor(Mix $mix, string $track): array
    {
        $heard = [];
        foreach ($mix->rules as $rule) {
            if (\in_array($track, $rule->targets, true)) {
                array_push($heard, ...$rule->tracksHeard($mix), ...array_map(static fn (string $clip): string => $mix->hasClip($clip) ? $mix->trackOf($clip)->id : $track, $rule->clips));
            }
        }

        return $heard;
    }

    /**
     * @param list<Keyframe> $keyframes
     *
     * @return list<Keyframe>
     */
    private function moved(array $keyframes): array
    {
        return array_map(fn (Keyframe $k): Keyframe => $k->at($k->position + $this->map->shift()), $keyframes);
    }
}
