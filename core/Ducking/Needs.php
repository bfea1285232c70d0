<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Closure;
use Wattage\Core\Clarity\Clarity;
use Wattage\Core\Clarity\Spoken;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use WeakMap;

/** What the rules of a mix need, from how loud it is with every lane of ducking taken off; worked out once. */
final class Needs
{
    private ?MixFigures $figures = null;
    private ?Clearance $clearance = null;
    /** @var array<string, array{Series, Series, Series}> by track */
    private array $shares = [];
    /** @var WeakMap<DuckRule, Need> */
    private readonly WeakMap $needs;

    /**
     * @param Mix $bare without ducking
     * @param Closure(Mix): MixFigures $figuresOf
     */
    public function __construct(private readonly Mix $bare, private readonly Listening $listening, private readonly Closure $figuresOf, private readonly Spectra $spectra)
    {
        $this->needs = new WeakMap();
    }

    public function of(DuckRule $rule): Need
    {
        return $this->needs[$rule] ??= null === $rule->clarity ? $this->clearanceNeed($rule) : $this->clarityNeed($rule);
    }

    /** @return array{Series, Series, Series} */
    public function shares(string $track): array
    {
        return $this->shares[$track] ??= $this->spectra->shares($this->bare, $this->figures(), $track);
    }

    private function clearanceNeed(DuckRule $rule): ClearanceNeed
    {
        $targets = [];
        foreach ($rule->targetsIn($this->bare) as $id) {
            $powers = $this->figures()->powersOfTrack($id);
            if (Stem::Speech === $this->bare->track($id)->stem || $this->bare->track($id)->muted) {
                continue; // what speaks is not what covers the speech
            }
            $none = Series::of(array_fill(0, $powers->count(), 0.0));
            $targets[$id] = DuckPart::All === $rule->part ? [$none, $none, $powers] : $this->shares($id);
        }

        return new ClearanceNeed($this->clearance(), $rule, $targets);
    }

    private function clarityNeed(DuckRule $rule): ClarityNeed
    {
        $bands = $this->spectra->bands($this->bare, $this->figures());
        $active = SpeechTimes::tenths($this->spoken(), intdiv($this->bare->rate, TrackPower::TENTHS_PER_SECOND), $this->figures()->count);
        $targets = array_fill_keys($rule->targetsIn($this->bare), true);
        $rows = ['voice' => [], 'targets' => [], 'rest' => []];
        foreach ($this->bare->tracks as $id => $track) {
            $part = match (true) {
                Stem::Speech === $track->stem => 'voice',
                isset($targets[$id]) => 'targets',
                default => 'rest',
            };
            $rows[$part][(string) $id] = [$bands[$id] ?? '', $this->bare->faders->of($track->stem)->ratio() ** 2];
        }
        $speech = new Spoken($active, $rows['voice'], $rows['targets'], $rows['rest']);

        return new ClarityNeed($rule, Clarity::ear($speech, $this->bare->aim->room), $speech->moments(...), (new BandShares($this->bare->rate))->byBand());
    }

    private function clearance(): Clearance
    {
        return $this->clearance ??= Clearance::of($this->bare, $this->figures(), $this->spoken(), $this->bare->aim->clearance);
    }

    /** @return list<Span> all that a rule hears as speech */
    private function spoken(): array
    {
        $speech = [];
        foreach ($this->bare->rules as $rule) {
            array_push($speech, ...$this->listening->spoken($rule, $this->bare), ...$rule->added);
        }

        return Spans::union($speech);
    }

    private function figures(): MixFigures
    {
        return $this->figures ??= ($this->figuresOf)($this->bare);
    }
}
