<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\App\View\StretchView;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Ducking\Dip;
use Wattage\Core\Ducking\Ducker;
use Wattage\Core\Ducking\Listening;
use Wattage\Core\Ducking\Moment;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Problem;
use Wattage\Core\Render\TrackMoves;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\DuckKind;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;

/** What the rules of a project would do to it, to look at and to hear before it is kept. */
final readonly class DuckingPlans
{
    public function __construct(private Measures $measures, private TrackPowers $powers, private TrackSpectra $spectra)
    {
    }

    /**
     * @param Fields $wanted rule: one to try in place of that with its id; without: id of one that goes; or neither
     *
     * @return array<string, mixed>
     *
     * @throws Problem
     */
    public function plan(Project $project, Mix $mix, Fields $wanted): array
    {
        $rule = $wanted->has('rule') ? RuleDocument::read($wanted->object('rule'), $mix->rate) : null;
        $without = $wanted->has('without') ? $wanted->string('without') : null;
        $tried = null === $rule ? $mix : $mix->withRule($rule);
        $tried = null === $without ? $tried : $tried->withoutRule($without);
        $ducker = $this->ducker($project, $tried);
        $span = Span::of(0, max(1, $tried->length()));
        $schedule = static fn (Curve $curve): array => array_map(StretchView::of(...), TrackMoves::lane($curve, $span) ?? []);
        $schedules = $curves = [];
        foreach (self::alike($tried, $ducker) as [$tracks, $all, $band]) {
            $schedules[] = ['tracks' => $tracks, 'schedule' => $schedule($all), 'bandSchedule' => $schedule($band ?? Curve::flat())];
            $curves[] = ['tracks' => $tracks, 'curve' => CurveDocument::toArray($all), ...(null === $band ? [] : ['band' => CurveDocument::toArray($band)])];
        }

        return [
            'moments' => null === $rule ? [] : array_map(static fn (Moment $m): array => ['from' => $m->span->from, 'to' => $m->span->to, 'heard' => $m->heard->value], $ducker->moments($rule)),
            'dips' => null === $rule ? [] : array_map(static fn (Dip $d): array => [
                'from' => $d->from, 'to' => $d->to, 'depth' => round($d->depth, 1), 'band' => round($d->band, 1), 'limited' => $d->limited, 'lift' => round($d->lift, 1),
            ], $ducker->dips($rule)),
            'lanes' => $schedules,
            'taken' => null === $rule ? null : self::taken($rule, $ducker),
            'edit' => [
                'edit' => 'duck',
                ...(null === $rule ? [] : ['rule' => RuleDocument::toArray($rule, $mix->rate)]),
                ...(null === $without ? [] : ['without' => $without]),
                'lanes' => $curves,
            ],
        ];
    }

    /** @return list<array{list<string>, Curve, ?Curve}> tracks that give way alike, their lane of all, and that of the band of speech where they have one */
    private static function alike(Mix $mix, Ducker $ducker): array
    {
        [$lanes, $bands] = [$ducker->lanes(), $ducker->lanes(true)];
        $alike = [];
        foreach (array_map(strval(...), array_keys($lanes + $bands)) as $id) {
            [$all, $band] = [$lanes[$id] ?? $mix->track($id)->ducking->curve, $bands[$id] ?? null];
            $key = spl_object_id($all).' '.(null === $band ? '' : spl_object_id($band));
            $alike[$key] = [[...$alike[$key][0] ?? [], $id], $all, $band];
        }

        return array_values($alike);
    }

    /**
     * What a rule that is no plain dip takes of the loudness of its targets while somebody speaks, and what a plain one would.
     *
     * @return ?array{now: float, plain: float} LU
     */
    private static function taken(DuckRule $rule, Ducker $ducker): ?array
    {
        if (DuckKind::Under !== $rule->kind || (DuckPart::All === $rule->part && (!$rule->moving || null !== $rule->depth))) {
            return null;
        }
        $plain = $rule->plain();
        $now = $ducker->taken($rule);
        $then = $ducker->asking($plain)->taken($plain);

        return null === $now || null === $then ? null : ['now' => round($now, 1), 'plain' => round($then, 1)];
    }

    /** @return list<string> tracks whose lane the rules would make otherwise by now */
    public function outOfDate(Project $project, Mix $mix): array
    {
        return [] === $mix->rules ? [] : $this->ducker($project, $mix)->outOfDate();
    }

    /** The mix after the rules that follow by themselves have run again. */
    public function followed(Project $project, Mix $mix): Mix
    {
        $targets = [];
        foreach ($mix->rules as $rule) {
            array_push($targets, ...$rule->follows ? $rule->targetsIn($mix) : []);
        }

        if ([] === $targets) {
            return $mix;
        }
        $ducker = $this->ducker($project, $mix);
        $late = array_values(array_intersect($targets, $ducker->outOfDate()));

        return [] === $late ? $mix : $ducker->applied($late);
    }

    private function ducker(Project $project, Mix $mix): Ducker
    {
        $by = [];
        $activity = function (string $source, float $sensitivity) use ($project, $mix, &$by): array {
            $by[(string) $sensitivity] ??= $this->measures->activityOf($project, $mix, $sensitivity);

            return $by[(string) $sensitivity]($source);
        };

        return new Ducker(
            $mix,
            new Listening($activity),
            fn (Mix $bare): MixFigures => $this->powers->of($project, $bare, kind: BareSpectra::KIND),
            new BareSpectra($project, $this->spectra),
        );
    }
}
