<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\Entity\Project;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Predicted;
use Wattage\Core\Loudness\Windows;
use Wattage\Core\Speech\Buried;
use Wattage\Core\Speech\ClearAll;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Accepted;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** What a state of a project will measure at, and where its speech is buried, as the browser gets it. */
final readonly class Figures
{
    public function __construct(private Measures $measures)
    {
    }

    /** @return array<string, mixed> */
    public function of(Project $project, Mix $mix): array
    {
        $figures = MixFigures::of($mix, $this->measures->tenthsOf($project));
        $speech = SpeechTimes::of($mix, $this->measures->activityOf($project, $mix->rate, $mix->aim->sensitivity));
        $clearance = Clearance::of($mix, $figures, $speech, $mix->aim->clearance);
        $buried = $clearance->buried();
        $open = array_values(array_filter($buried, static fn (Buried $b): bool => null === self::acceptance($mix, $b)));

        return [
            'programme' => self::predicted($figures->programme()),
            'stems' => array_combine(array_column(Stem::cases(), 'value'), array_map(static fn (Stem $stem): array => self::predicted($figures->stem($stem)), Stem::cases())),
            'tracks' => array_map(static fn (string $id): array => ['id' => $id, ...self::predicted($figures->track($id))], array_map(strval(...), array_keys($mix->tracks))),
            'history' => self::history($figures),
            'speech' => array_map(static fn (Span $s): array => [$s->from, $s->to], $speech),
            'clearance' => self::runs($clearance->values),
            'clearPart' => $clearance->clearPart(),
            'buried' => array_map(static fn (Buried $b): array => self::buried($mix, $b), $buried),
            'clearAll' => ClearAll::edit($mix, $open),
        ];
    }

    /** @return array<string, ?float> */
    private static function predicted(Predicted $found): array
    {
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 2);

        return [
            'integrated' => $round($found->integrated),
            'range' => $round($found->range),
            'maxMomentary' => $round($found->maxMomentary),
            'maxShortTerm' => $round($found->maxShortTerm),
            'peak' => $round($found->peak),
        ];
    }

    /** @return list<?float> short-term loudness once a second, LUFS; null for silence */
    private static function history(MixFigures $figures): array
    {
        $stretches = Windows::shortTerm($figures->powers());
        $history = [];
        for ($k = 0, $n = \count($stretches); $k < $n; $k += 10) {
            $history[] = $stretches[$k] > 1e-9 ? round(\Wattage\Core\Loudness\Gating::loudness($stretches[$k]), 1) : null;
        }

        return $history;
    }

    /**
     * @param array<int, float> $values
     *
     * @return list<array{int, list<float>}> where each run of speech begins, in 100 ms, and its clearance in LU
     */
    private static function runs(array $values): array
    {
        $runs = [];
        $first = $next = -1;
        foreach ($values as $k => $value) {
            $first = $k === $next ? $first : $k;
            $runs[$first][] = round($value, 1);
            $next = $k + 1;
        }

        return array_map(static fn (int $start, array $run): array => [$start, $run], array_keys($runs), $runs);
    }

    /** @return array<string, mixed> */
    private static function buried(Mix $mix, Buried $buried): array
    {
        return [
            'from' => $buried->span->from,
            'to' => $buried->span->to,
            'worst' => round($buried->worst, 1),
            'covering' => $buried->covering,
            'dipped' => $buried->dipped,
            'dip' => null === $buried->dip ? null : round($buried->dip, 1),
            'dipEdit' => ClearAll::edit($mix, [$buried]),
            'lift' => null === $buried->lift ? null : round($buried->lift, 1),
            'liftEdit' => ClearAll::lift($mix, $buried),
            'accepted' => self::acceptance($mix, $buried)?->note,
        ];
    }

    private static function acceptance(Mix $mix, Buried $buried): ?Accepted
    {
        foreach ($mix->aim->accepted as $accepted) {
            if ($accepted->span->meets($buried->span)) {
                return $accepted;
            }
        }

        return null;
    }
}
