<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Clip\SetClipGains;
use Wattage\Core\Edit\Clip\SetCurves;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\ClipPower;
use Wattage\Core\Loudness\EvenUp;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\Windows;
use Wattage\Core\Problem;
use Wattage\Core\Speech\Pauses;
use Wattage\Core\Speech\Steady;
use Wattage\Core\Speech\SteadyPlan;
use Wattage\Core\Timeline\Mix;

/** Works out what evening up and steadying would do, as an edit to look at before it is made. */
final readonly class Levelling
{
    private const MOST_CLIPS = 500;
    /** Of all clips that are steadied together. */
    private const MOST_HOURS = 3;

    public function __construct(private Measures $measures)
    {
    }

    /**
     * @param Fields $wanted clips; by: "average" or "peak"; to: dBFS, "stem", or {clip}; ceiling in dBFS
     *
     * @throws Problem
     */
    public function evenUp(Project $project, Mix $mix, Fields $wanted): LevelPlan
    {
        $tenths = $this->measures->tenthsOf($project);
        $byPeak = match ($wanted->string('by')) {
            'average' => false,
            'peak' => true,
            default => throw InvalidDocument::wrongType('by', 'average or peak'),
        };
        $target = null;
        if (!$wanted->isText('to')) {
            $target = $wanted->isNumber('to') ? $wanted->float('to', EvenUp::LOWEST, EvenUp::HIGHEST) : $this->levelOf($mix, $wanted->object('to')->string('clip'), $byPeak, $project);
        }
        $rows = (new EvenUp($byPeak, $target, $wanted->float('ceiling', EvenUp::LOWEST_CEILING, EvenUp::HIGHEST, EvenUp::USUAL_CEILING)))->of($mix, $this->clips($wanted), $tenths);
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 2);
        $gains = [];
        foreach ($rows as $row) {
            null === $row['gain'] || 0.0 === $row['by'] || $gains[$row['clip']] = Decibels::of(round($row['gain'], 2));
        }
        $shown = array_map(static fn (array $row): array => ['clip' => $row['clip'], 'now' => $round($row['now']), 'target' => round($row['target'], 2), 'by' => $round($row['by']), 'after' => $round($row['after']), 'limit' => $row['limit']], $rows);
        if ([] === $gains) {
            return LevelPlan::ofNothing($mix, $shown);
        }
        $listed = array_map(static fn (string $clip, Decibels $gain): array => ['clip' => $clip, 'gain' => $gain->db], self::ids($gains), $gains);

        return new LevelPlan($shown, ['edit' => 'set-clip-gains', 'gains' => $listed], self::ids($gains), (new SetClipGains($gains))->apply($mix));
    }

    /**
     * @param Fields $wanted clips; window in seconds; to: dBFS, "stem", or "own"; up, down, tolerance in dB
     *
     * @throws Problem
     */
    public function steady(Project $project, Mix $mix, Fields $wanted): LevelPlan
    {
        $tenths = $this->measures->tenthsOf($project);
        $activity = $this->measures->activityOf($project, $mix, $mix->aim->sensitivity);
        $rows = $curves = [];
        $clips = $this->clips($wanted);
        $hours = array_sum(array_map(static fn (string $id): int => $mix->clip($id)->length, $clips)) / $mix->rate / 3600;
        $hours <= self::MOST_HOURS || throw InvalidEdit::tooLongToSteady(self::MOST_HOURS);
        foreach ($clips as $id) {
            $clip = $mix->clip($id);
            $plan = SteadyPlan::of($mix, $clip, $tenths($clip->source), $activity, new Steady(
                $wanted->float('window', Steady::SHORTEST_WINDOW, Steady::LONGEST_WINDOW, Steady::USUAL_WINDOW),
                $this->steadyTarget($wanted, $mix, $id),
                $wanted->float('up', 0, Steady::MOST_UP, Steady::USUAL_UP),
                $wanted->float('down', 0, Steady::MOST_DOWN, Steady::USUAL_DOWN),
                $wanted->float('tolerance', Steady::LEAST_TOLERANCE, Steady::MOST_TOLERANCE, Steady::USUAL_TOLERANCE),
                $wanted->has('pauses') ? $wanted->choice('pauses', Pauses::class) : Pauses::Follow,
                $wanted->float('hush', 0, Steady::MOST_HUSH, Steady::USUAL_HUSH),
                $wanted->float('ceiling', Steady::LOWEST_CEILING, 0, Steady::USUAL_CEILING),
            ));
            $rows[] = self::row($plan);
            null === $plan->curve || $curves[$id] = $plan->curve;
        }
        if ([] === $curves) {
            return LevelPlan::ofNothing($mix, $rows);
        }
        $listed = array_map(static fn (string $clip, Curve $curve): array => ['clip' => $clip, 'curve' => CurveDocument::toArray($curve)], self::ids($curves), $curves);

        return new LevelPlan($rows, ['edit' => 'set-curves', 'curves' => $listed], self::ids($curves), (new SetCurves($curves))->apply($mix));
    }

    /**
     * @param array<string, mixed> $byClip
     *
     * @return list<string>
     */
    private static function ids(array $byClip): array
    {
        return array_map(strval(...), array_keys($byClip));
    }

    /** @return array<string, mixed> */
    private static function row(SteadyPlan $plan): array
    {
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 2);

        return [
            'clip' => $plan->clip->id,
            'before' => $round($plan->before),
            'after' => $round($plan->after),
            'keyframes' => \count($plan->curve->keyframes ?? []),
            'levelsBefore' => self::levels($plan->powersBefore, $plan->active),
            'levelsAfter' => self::levels($plan->powersAfter, $plan->active),
        ];
    }

    /**
     * @param list<float> $powers every 100 ms
     * @param string $active likewise
     *
     * @return list<?float> momentary level five times a second, dBFS; null where nobody speaks in the middle of its 400 ms
     */
    private static function levels(array $powers, string $active): array
    {
        $levels = [];
        foreach (Windows::momentary($powers) as $k => $power) {
            if (0 === $k % 2) {
                $speaks = str_contains(substr($active, $k + 1, 2), "\1");
                $levels[] = $speaks && $power > 1e-9 ? round(Gating::loudness($power), 1) : null;
            }
        }

        return $levels;
    }

    private function steadyTarget(Fields $wanted, Mix $mix, string $clip): ?float
    {
        if (!$wanted->isText('to')) {
            return $wanted->float('to', EvenUp::LOWEST, EvenUp::HIGHEST);
        }

        return match ($wanted->string('to')) {
            'own' => null,
            'stem' => EvenUp::usual($mix->trackOf($clip)->stem),
            default => throw InvalidDocument::wrongType('to', 'own, stem, or a level in dBFS'),
        };
    }

    private function levelOf(Mix $mix, string $id, bool $byPeak, Project $project): float
    {
        $clip = $mix->clip($id);
        $tenths = $this->measures->tenthsOf($project)($clip->source);
        $power = null === $tenths ? null : ClipPower::of($mix, $clip, $tenths);

        return ($byPeak ? $power?->peak() : $power?->average()) ?? throw InvalidDocument::wrongType('to', 'a clip that is not silent');
    }

    /** @return non-empty-list<string> */
    private function clips(Fields $wanted): array
    {
        $clips = array_values(array_unique($wanted->strings('clips')));

        return \count($clips) <= self::MOST_CLIPS ? $clips : throw InvalidEdit::tooMany('clips', self::MOST_CLIPS);
    }
}
