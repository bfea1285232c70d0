<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Likeness;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\DuckKind;
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
    /** @var array<string, array<string, list<Dip>>> by rule and track */
    private array $ofTracks = [];
    /** @var array<string, array<string, array<int, list<Dip>>>> by rule, track, and whether of the band of speech */
    private array $parts = [];
    /** @var array<string, array{Curve, Curve}> by rule: of all, and of the band of speech */
    private array $courses = [];
    /** @var array<string, array<string, Curve>> by rule and track */
    private array $turns = [];
    private ?Needs $needs = null;

    /**
     * @param Closure(Mix): MixFigures $figuresOf how loud the mix would be without any ducking; asked for where a rule needs it
     */
    public function __construct(private readonly Mix $mix, private readonly Listening $listening, private readonly Closure $figuresOf, private readonly Spectra $spectra)
    {
    }

    /** @return list<Moment> what a rule hears */
    public function moments(DuckRule $rule): array
    {
        return $this->moments[$rule->id] ??= $this->listening->to($rule, $this->mix);
    }

    /** @return list<Dip> what a rule makes of it; where each of its targets has its own, those of all of them */
    public function dips(DuckRule $rule): array
    {
        return match (true) {
            $this->isForAll($rule) => $this->dips[$rule->id] ??= $this->under($rule, null),
            DuckKind::Turns === $rule->kind => [],
            default => array_merge(...array_map(fn (string $id): array => $this->dipsOf($rule, $id), $rule->targetsIn($this->mix))),
        };
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
        $other->moments = $this->moments;
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
        $stretches = [];
        foreach ($this->moments($rule) as $moment) {
            $moment->heard->ducks() && $stretches[] = $this->tenths($moment->span);
        }
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
            foreach ($rule->targetsIn($this->mix) as $track) {
                if ($this->isMoving($rule)) {
                    $curves[$track][] = $this->course($rule)[(int) $band];
                } elseif (DuckKind::Turns === $rule->kind) {
                    $band || $curves[$track][] = $this->turns($rule)[$track] ?? Curve::flat();
                } else {
                    $dips[$track] = [...$dips[$track] ?? [], ...$this->partOf($rule, $track, $band)];
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

    private function isMoving(DuckRule $rule): bool
    {
        return $rule->moving && null === $rule->depth && DuckKind::Under === $rule->kind;
    }

    /** @return list<Dip> */
    private function dipsOf(DuckRule $rule, string $track): array
    {
        if ($this->isForAll($rule)) {
            return $this->dips($rule);
        }

        return $this->ofTracks[$rule->id][$track] ??= DuckKind::Hush === $rule->kind
            ? Hush::of($rule, $this->listening->spokenOn($this->mix->track($track), $rule->sensitivity ?? $this->mix->aim->sensitivity), $this->mix->length(), $this->mix->rate)
            : $this->under($rule, new HandMade($this->mix->track($track)));
    }

    /** @return list<Dip> those of a rule that lower all of a track, or the band of speech in it, by that alone */
    private function partOf(DuckRule $rule, string $track, bool $band): array
    {
        $whose = $this->isForAll($rule) ? '' : $track;
        if (!isset($this->parts[$rule->id][$whose][(int) $band])) {
            $parts = [];
            foreach ($this->dipsOf($rule, $track) as $dip) {
                $depth = $band ? $dip->band : $dip->depth;
                $depth < 0.0 && $parts[] = new Dip($dip->from, $dip->to, $depth, $dip->fall, $dip->rise, $dip->limited);
            }
            $this->parts[$rule->id][$whose][(int) $band] = $parts;
        }

        return $this->parts[$rule->id][$whose][(int) $band];
    }

    /** Whether its dips are those of all its targets alike. */
    private function isForAll(DuckRule $rule): bool
    {
        return DuckKind::Under === $rule->kind && !$rule->addsUp;
    }

    /** @return list<Dip> */
    private function under(DuckRule $rule, ?HandMade $handMade): array
    {
        $timing = $rule->timing;
        $dips = [];
        foreach ($this->moments($rule) as $moment) {
            if (!$moment->heard->ducks()) {
                continue;
            }
            $from = max(0, $moment->span->from - $timing->lead);
            $to = $moment->span->to + $timing->hold;
            $given = $this->given($rule, $moment, null === $handMade ? 0.0 : $handMade->over(Span::of($from, $to)));
            if ($given->all + $given->band < 0.0) {
                $dips[] = new Dip($from, $to, $given->all, $timing->fall, $timing->rise, !$given->enough, $given->band, $given->lift);
            }
        }

        return $dips;
    }

    /** @param float $by dB that are down there already, never above 0 */
    private function given(DuckRule $rule, Moment $moment, float $by): Given
    {
        if (null !== $rule->depth) {
            return new Given(...$rule->part->split(min(0.0, $rule->depth - $by)));
        }

        return $this->needs()->of($rule)->furthest(...$this->tenths($moment->span))->within($rule->deepest);
    }

    /** @return array{Curve, Curve} of all, and of the band of speech */
    private function course(DuckRule $rule): array
    {
        if (!isset($this->courses[$rule->id])) {
            [$all, $band] = [[], []];
            foreach ($this->moments($rule) as $moment) {
                if (!$moment->heard->ducks()) {
                    continue;
                }
                [$from, $to] = $this->tenths($moment->span);
                foreach (self::held($this->needs()->of($rule)->between($from, $to), intdiv($rule->timing->lead, $this->frames()), intdiv($rule->timing->hold, $this->frames())) as $k => $given) {
                    $all[$k] = min($all[$k] ?? 0.0, $given->all);
                    $band[$k] = min($band[$k] ?? 0.0, $given->band);
                }
            }
            $course = Course::of($all, $this->frames());
            $this->courses[$rule->id] = [$course, Course::within(Course::of($band, $this->frames()), $course, $rule->deepest)];
        }

        return $this->courses[$rule->id];
    }

    /**
     * What is needed at first and at last, for as long before and after.
     *
     * @param array<int, Given> $needs
     *
     * @return array<int, Given>
     */
    private static function held(array $needs, int $lead, int $hold): array
    {
        if ([] === $needs) {
            return [];
        }
        [$first, $last] = [(int) array_key_first($needs), (int) array_key_last($needs)];
        for ($i = 1; $i <= $lead && $first - $i >= 0; ++$i) {
            $needs[$first - $i] = $needs[$first];
        }
        for ($i = 1; $i <= $hold; ++$i) {
            $needs[$last + $i] = $needs[$last];
        }

        return $needs;
    }

    /** @return array<string, Curve> by track */
    private function turns(DuckRule $rule): array
    {
        if (!isset($this->turns[$rule->id])) {
            $figures = ($this->figuresOf)(self::bare($this->mix));
            $powers = $active = [];
            foreach ($rule->targetsIn($this->mix) as $id) {
                $powers[$id] = $figures->powersOfTrack($id);
                $active[$id] = SpeechTimes::tenths($this->listening->spokenOn($this->mix->track($id), $rule->sensitivity ?? $this->mix->aim->sensitivity), $this->frames(), $figures->count);
            }
            $this->turns[$rule->id] = Turns::of($powers, $active, $rule->limit(), intdiv($rule->timing->hold, $this->frames()), $this->frames());
        }

        return $this->turns[$rule->id];
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

    /** @return array{int, int} */
    private function tenths(Span $span): array
    {
        $half = intdiv($this->frames(), 2);

        return [intdiv($span->from + $half, $this->frames()), intdiv($span->to + $half, $this->frames())];
    }

    private function frames(): int
    {
        return intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);
    }
}
