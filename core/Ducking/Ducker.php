<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Likeness;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\DuckKind;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Held;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Runs the rules of a mix: the lanes that come of what they ask for, together. */
final class Ducker
{
    private Asked $asked;
    private ?Needs $needs = null;

    /**
     * @param Closure(Mix): MixFigures $figuresOf how loud the mix would be without any ducking; asked for where a rule needs it
     */
    public function __construct(private readonly Mix $mix, private readonly Listening $listening, private readonly Closure $figuresOf, private readonly Spectra $spectra)
    {
        $this->asked = new Asked($mix, $listening, static fn (): MixFigures => $figuresOf(self::bare($mix)), $this->needs(...));
    }

    /** @return list<Moment> what a rule hears */
    public function moments(DuckRule $rule): array
    {
        return $this->asked->moments($rule);
    }

    /** @return list<Dip> what a rule makes of it; where each of its targets has its own, those of all of them */
    public function dips(DuckRule $rule): array
    {
        return $this->asked->dips($rule);
    }

    /**
     * @param bool $band of the band of speech instead
     *
     * @return array<string, Curve> by id of every track that a rule lowers, or that has a lane already: what was corrected by hand stays
     */
    public function lanes(bool $band = false): array
    {
        return $this->lanesBy($this->mix->rules, $band);
    }

    /**
     * Speech that is muted only to listen to something else makes nothing out of date: a lane may also be what the rules would make
     * of the mix with nobody muted.
     *
     * @return list<string> tracks whose lane is not what the rules would make of the mix as it is now
     */
    public function outOfDate(): array
    {
        $late = $this->late();
        $heard = array_reduce($this->mix->tracks, static fn (Mix $mix, Track $track): Mix => $track->muted ? $mix->withTrack($track->withMuted(false)) : $mix, $this->mix);

        return [] === $late || $heard === $this->mix ? $late : array_values(array_intersect($late, (new self($heard, $this->listening, $this->figuresOf, $this->spectra))->outOfDate()));
    }

    /** @param ?list<string> $tracks null for all */
    public function applied(?array $tracks = null): Mix
    {
        $mix = $this->mix;
        foreach ([false, true] as $band) {
            foreach ($this->lanes($band) as $id => $curve) {
                if (null !== $tracks && !\in_array((string) $id, $tracks, true)) {
                    continue;
                }
                $track = $mix->track($id);
                $now = Held::following($mix, $track->givingWay($band));
                $mix = Likeness::of($curve, $track->givingWay($band)->curve) ? $mix : $mix->withTrack($track->withGivingWay($band, $now->holding($curve, $now->held)));
            }
        }

        return $mix;
    }

    /** The mix with no lane of ducking at all. */
    public static function bare(Mix $mix): Mix
    {
        return array_reduce($mix->tracks, static fn (Mix $bare, Track $track): Mix => $track->ducking->isEmpty() && $track->band->isEmpty() ? $bare : $bare->withTrack($track->withDucking(Ducking::none())->withBand(Ducking::none())), $mix);
    }

    /**
     * The same mix with a rule that asks for something else of the same tracks under the same speech: what is heard is not worked out again.
     *
     * @param DuckRule $rule in place of that with its id
     */
    public function asking(DuckRule $rule): self
    {
        $other = new self($this->mix->withRule($rule), $this->listening, $this->figuresOf, $this->spectra);
        $other->asked = $this->asked->withMix($other->mix, $this->needs(...));
        $other->needs = $this->needs();

        return $other;
    }

    /**
     * What rules take of the loudness of some tracks while a rule hears somebody speak.
     *
     * @return ?float LU; null where they are silent then anyway
     */
    public function taken(DuckRule $rule): ?float
    {
        [$lanes, $bands] = [$this->lanes(), $this->lanes(true)];
        $stretches = array_map(fn (Moment $moment): array => $moment->tenths($this->frames()), $this->asked->ducked($rule));
        $before = $after = 0.0;
        $taken = [];
        foreach ($rule->targetsIn($this->mix) as $id) {
            [$all, $band] = [$lanes[$id] ?? Curve::flat(), $bands[$id] ?? Curve::flat()];
            $alike = spl_object_id($all).' '.spl_object_id($band);
            [$one, $other] = ($taken[$alike] ??= new Taken($all, $band, $this->frames(), $stretches))->of($this->needs()->shares($id));
            $before += $one;
            $after += $other;
        }

        return $after > 0.0 ? 10.0 * log10($before / $after) : null;
    }

    /**
     * @param array<string, DuckRule> $rules
     *
     * @return array<string, Curve> by track
     */
    private function lanesBy(array $rules, bool $band): array
    {
        $dips = $curves = [];
        foreach ($rules as $rule) {
            if ($band && DuckKind::Turns === $rule->kind) {
                continue; // of what takes turns, all of a track gives way
            }
            foreach ($rule->targetsIn($this->mix) as $track) {
                $curve = $this->asked->curve($rule, $track, $band);
                if (null !== $curve) {
                    $curves[$track][] = $curve;
                } else {
                    $dips[$track] = [...$dips[$track] ?? [], ...$this->asked->part($rule, $track, $band)];
                }
            }
        }
        $lanes = $before = [];
        $lane = Curve::flat();
        foreach ($this->mix->tracks as $id => $track) {
            $now = $track->givingWay($band);
            if (($dips[$id] ?? []) !== [] || isset($curves[$id]) || !$now->isEmpty() || (!$band && isset($dips[$id]))) {
                // Tracks that give way alike have one and the same lane: what is made of it is made once.
                if (($dips[$id] ?? []) !== $before) {
                    $before = $dips[$id] ?? [];
                    $lane = LaneBuilder::of($before);
                }
                $made = Deepest::of([$lane, ...$curves[$id] ?? []], $this->frames());
                $lanes[(string) $id] = Held::kept(Held::following($this->mix, $now), $made);
            }
        }

        return $lanes;
    }

    /** @return list<string> */
    private function late(): array
    {
        $late = [];
        foreach ([false, true] as $band) {
            foreach ($this->lanes($band) as $id => $curve) {
                Likeness::of($curve, $this->mix->track((string) $id)->givingWay($band)->curve) || $late[] = (string) $id;
            }
        }

        return array_values(array_unique($late));
    }

    private function needs(): Needs
    {
        return $this->needs ??= new Needs($this->heard(), $this->listening, $this->figuresOf, $this->spectra);
    }

    /** The mix that those who give way under speech have to make room in: they themselves have no lanes, and hush and turns leave of the speech what they leave. */
    private function heard(): Mix
    {
        [$under, $others] = [[], []];
        foreach ($this->mix->rules as $rule) {
            DuckKind::Under === $rule->kind ? array_push($under, ...$rule->targetsIn($this->mix)) : $others[$rule->id] = $rule;
        }
        $heard = self::bare($this->mix);
        foreach (array_diff_key($this->lanesBy($others, false), array_flip($under)) as $id => $curve) {
            $track = $heard->track($id);
            $heard = $heard->withTrack($track->withGivingWay(false, $track->givingWay(false)->holding($curve, [])));
        }

        return $heard;
    }

    private function frames(): int
    {
        return intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);
    }
}
