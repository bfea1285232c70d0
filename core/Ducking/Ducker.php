<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Likeness;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Time\Spans;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Held;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Runs the rules of a mix: what they hear, and the lanes that come of it. */
final class Ducker
{
    /** @var array<string, list<Moment>> by rule */
    private array $moments = [];

    /** @var array<string, list<Dip>> by rule */
    private array $dips = [];

    private ?Clearance $clearance = null;

    /** @param Closure(Mix): MixFigures $figuresOf how loud the mix would be without any ducking; asked for where a rule needs it */
    public function __construct(private readonly Mix $mix, private readonly Listening $listening, private readonly Closure $figuresOf)
    {
    }

    /** @return list<Moment> what a rule hears */
    public function moments(DuckRule $rule): array
    {
        return $this->moments[$rule->id] ??= $this->listening->to($rule, $this->mix);
    }

    /** @return list<Dip> what a rule makes of it, the same for each of its targets */
    public function dips(DuckRule $rule): array
    {
        if (isset($this->dips[$rule->id])) {
            return $this->dips[$rule->id];
        }
        $timing = $rule->timing;
        $dips = [];
        foreach ($this->moments($rule) as $moment) {
            if (!$moment->heard->ducks()) {
                continue;
            }
            [$depth, $limited] = $this->depth($rule, $moment);
            if ($depth < 0.0) {
                $from = max(0, $moment->span->from - $timing->lead);
                $dips[] = new Dip($from, $moment->span->to + $timing->hold, $depth, $timing->fall, $timing->rise, $limited);
            }
        }

        return $this->dips[$rule->id] = $dips;
    }

    /** @return array<string, Curve> by id of every track that a rule lowers, or that has a lane already: what was corrected by hand stays */
    public function lanes(): array
    {
        $dips = [];
        foreach ($this->mix->rules as $rule) {
            foreach ($rule->targetsIn($this->mix) as $track) {
                $dips[$track] = [...$dips[$track] ?? [], ...$this->dips($rule)];
            }
        }
        $lanes = [];
        foreach ($this->mix->tracks as $id => $track) {
            if (isset($dips[$id]) || !$track->ducking->isEmpty()) {
                $lanes[(string) $id] = Held::kept($track->ducking, LaneBuilder::of($dips[$id] ?? []));
            }
        }

        return $lanes;
    }

    /**
     * Speech that is muted only to listen to something else makes nothing out of date: a lane may also be what the rules would make
     * of the mix with nobody muted.
     *
     * @return list<string> tracks whose lane is not what the rules would make of the mix as it is now
     */
    public function outOfDate(): array
    {
        $late = $this->lateIn($this->lanes());
        $heard = array_reduce($this->mix->tracks, static fn (Mix $mix, Track $track): Mix => $track->muted ? $mix->withTrack($track->withMuted(false)) : $mix, $this->mix);

        return [] === $late || $heard === $this->mix ? $late : array_values(array_intersect($late, (new self($heard, $this->listening, $this->figuresOf))->outOfDate()));
    }

    /**
     * @param array<string, Curve> $lanes by track
     *
     * @return list<string>
     */
    private function lateIn(array $lanes): array
    {
        return array_values(array_filter(array_map(strval(...), array_keys($lanes)), fn (string $id): bool => !Likeness::of($lanes[$id], $this->mix->track($id)->ducking->curve)));
    }

    /** @param ?list<string> $tracks null for all */
    public function applied(?array $tracks = null): Mix
    {
        $mix = $this->mix;
        foreach ($this->lanes() as $id => $curve) {
            if (null !== $tracks && !\in_array((string) $id, $tracks, true)) {
                continue;
            }
            $track = $mix->track($id);
            $mix = Likeness::of($curve, $track->ducking->curve) ? $mix : $mix->withTrack($track->withDucking(new Ducking($curve, $track->ducking->held)));
        }

        return $mix;
    }

    /** @return array{float, bool} dB, and whether more would have been needed */
    private function depth(DuckRule $rule, Moment $moment): array
    {
        if (null !== $rule->depth) {
            return [$rule->depth, false];
        }
        $needed = $this->clearance()->dipFor($moment->span, $rule->targetsIn($this->mix), $rule->clearance);

        return null === $needed || $needed < $rule->deepest ? [$rule->deepest, true] : [$needed, false];
    }

    /** Worked out once, with every lane of ducking taken off. */
    private function clearance(): Clearance
    {
        if (null === $this->clearance) {
            $bare = array_reduce($this->mix->tracks, static fn (Mix $mix, Track $track): Mix => $track->ducking->isEmpty() ? $mix : $mix->withTrack($track->withDucking(Ducking::none())), $this->mix);
            $speech = [];
            foreach ($this->mix->rules as $rule) {
                array_push($speech, ...$this->listening->spoken($rule, $this->mix), ...$rule->added);
            }
            $spoken = Spans::union($speech);
            $this->clearance = Clearance::of($bare, ($this->figuresOf)($bare), $spoken, $this->mix->aim->clearance);
        }

        return $this->clearance;
    }
}
