<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\DuckKind;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;

/** What each rule of a mix hears, and what it asks of each of its targets, as if it were the only one; worked out once. */
final class Asked
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

    /**
     * @param Closure(): MixFigures $undipped how loud the mix would be without any ducking
     * @param Closure(): Needs $needs
     */
    public function __construct(private readonly Mix $mix, private readonly Listening $listening, private readonly Closure $undipped, private readonly Closure $needs)
    {
    }

    /**
     * The same of a mix in which one rule asks for something else under the same speech: what is heard is not worked out again.
     *
     * @param Closure(): Needs $needs
     */
    public function withMix(Mix $mix, Closure $needs): self
    {
        $other = new self($mix, $this->listening, $this->undipped, $needs);
        $other->moments = $this->moments;

        return $other;
    }

    /** @return list<Moment> what a rule hears */
    public function moments(DuckRule $rule): array
    {
        return $this->moments[$rule->id] ??= $this->listening->to($rule, $this->mix);
    }

    /** @return list<Moment> those of them in which it has its targets give way */
    public function ducked(DuckRule $rule): array
    {
        return array_values(array_filter($this->moments($rule), static fn (Moment $moment): bool => $moment->heard->ducks()));
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
     * @return ?Curve how a target gives way to a rule that knows no single dips; null where it knows them
     */
    public function curve(DuckRule $rule, string $track, bool $band): ?Curve
    {
        return match (true) {
            $rule->moving && null === $rule->depth && DuckKind::Under === $rule->kind => $this->course($rule)[(int) $band],
            DuckKind::Turns === $rule->kind => $this->turns($rule)[$track] ?? Curve::flat(),
            default => null,
        };
    }

    /** @return list<Dip> those of a rule that lower all of a track, or the band of speech in it, by that alone */
    public function part(DuckRule $rule, string $track, bool $band): array
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

    /** @return list<Dip> */
    private function dipsOf(DuckRule $rule, string $track): array
    {
        if ($this->isForAll($rule)) {
            return $this->dips($rule);
        }

        return $this->ofTracks[$rule->id][$track] ??= DuckKind::Hush === $rule->kind
            ? Hush::of($rule, $this->spokenOn($rule, $track), $this->mix->length(), $this->mix->rate)
            : $this->under($rule, new HandMade($this->mix->track($track)));
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
        foreach ($this->ducked($rule) as $moment) {
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

        return ($this->needs)()->of($rule)->furthest(...$moment->tenths($this->frames()))->within($rule->deepest);
    }

    /** @return array{Curve, Curve} of all, and of the band of speech */
    private function course(DuckRule $rule): array
    {
        if (!isset($this->courses[$rule->id])) {
            $need = ($this->needs)()->of($rule);
            [$lead, $hold] = [intdiv($rule->timing->lead, $this->frames()), intdiv($rule->timing->hold, $this->frames())];
            [$all, $band] = [[], []];
            foreach ($this->ducked($rule) as $moment) {
                foreach (self::held($need->between(...$moment->tenths($this->frames())), $lead, $hold) as $k => $given) {
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
            $figures = ($this->undipped)();
            $powers = $active = [];
            foreach ($rule->targetsIn($this->mix) as $id) {
                $powers[$id] = $figures->powersOfTrack($id);
                $active[$id] = SpeechTimes::tenths($this->spokenOn($rule, $id), $this->frames(), $figures->count);
            }
            $this->turns[$rule->id] = Turns::of($powers, $active, $rule->limit(), intdiv($rule->timing->hold, $this->frames()), $this->frames());
        }

        return $this->turns[$rule->id];
    }

    /** @return list<Span> timeline samples at which somebody speaks on a track, as closely as a rule listens */
    private function spokenOn(DuckRule $rule, string $track): array
    {
        return $this->listening->spokenOn($this->mix->track($track), $rule->sensitivity ?? $this->mix->aim->sensitivity);
    }

    private function frames(): int
    {
        return intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);
    }
}
