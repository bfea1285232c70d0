<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Generator;
use Wattage\App\Entity\Project;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\LevelZone;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Moments;
use Wattage\Core\Loudness\Predicted;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Loudness\Verdict;
use Wattage\Core\Loudness\Windows;
use Wattage\Core\Speech\Buried;
use Wattage\Core\Speech\ClearAll;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Accepted;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** What a state of a project will measure at, and where its speech is buried, as the browser gets it. */
final readonly class Figures
{
    private const MOST_PLACES = 200;

    public function __construct(private Measures $measures, private TrackPowers $powers, private DuckingPlans $ducking, private ProgrammePeaks $peaks)
    {
    }

    public function measured(Project $project, Mix $mix): MeasuredMix
    {
        $states = TrackPowers::states($mix);
        $figures = $this->powers->of($project, $mix, $states);
        $speech = SpeechTimes::of($mix, $this->measures->activityOf($project, $mix, $mix->aim->sensitivity));

        return new MeasuredMix($figures, $states, $speech, Clearance::of($mix, $figures, $speech, $mix->aim->clearance));
    }

    /** @return array<string, mixed> */
    public function of(Project $project, Mix $mix, MeasuredMix $measured): array
    {
        [$figures, $states, $speech, $clearance] = [$measured->figures, $measured->states, $measured->speech, $measured->clearance];
        $peaks = $this->peaks->of($project, $mix, $figures, $states, $mix->aim->truePeak);
        $programme = $figures->programme($peaks->highest);
        $buried = $clearance->buried();
        $open = array_values(array_filter($buried, static fn (Buried $b): bool => null === self::acceptance($mix, $b)));

        return [
            'programme' => self::predicted($programme),
            ...$this->predictions($project, $mix, $figures, $states),
            'verdict' => self::verdict($programme, $mix->aim),
            'over' => ['exact' => $peaks->isExact, 'places' => self::over($mix, $peaks->over)],
            ...$this->outside($project, $mix, $figures, $states),
            'history' => self::history($figures),
            'speech' => array_map(static fn (Span $s): array => [$s->from, $s->to], $speech),
            'clearance' => self::runs($clearance),
            'clearPart' => $clearance->clearPart,
            'buried' => array_map(static fn (Buried $b): array => self::buried($mix, $b), $buried),
            'moreBuried' => array_map(static fn (Span $s): array => [$s->from, $s->to], $clearance->moreBuried()),
            'clearAll' => ClearAll::edit($mix, $open),
            'outOfDate' => $this->ducking->outOfDate($project, $mix),
        ];
    }

    /**
     * What meters show during a minute.
     *
     * @return array<string, mixed>
     */
    public function moments(Project $project, Mix $mix, int $minute): array
    {
        $figures = $this->powers->of($project, $mix);

        return ['meters' => [
            self::meter('programme', $figures->powers(), $minute),
            ...array_map(static fn (Stem $stem): array => self::meter($stem->value, $figures->powersOf($stem), $minute), Stem::cases()),
            ...array_map(static fn (string $id): array => self::meter("track {$id}", $figures->tracks()[$id]->powers, $minute), array_map(strval(...), array_keys($mix->tracks))),
        ]];
    }

    /**
     * @return array<string, mixed>
     */
    private static function meter(string $of, Series $powers, int $minute): array
    {
        $count = 60 * TrackPower::TENTHS_PER_SECOND;
        $moments = Moments::of($powers, $minute * $count, $count);
        $round = static fn (?float $lufs): ?float => null === $lufs ? null : round($lufs, 1);

        return ['of' => $of, 'momentary' => array_map($round, $moments->momentary), 'shortTerm' => array_map($round, $moments->shortTerm)];
    }

    /**
     * @param array<string, string> $states by track
     *
     * @return array{stems: array<string, array<string, ?float>>, tracks: list<array<string, mixed>>}
     */
    private function predictions(Project $project, Mix $mix, MixFigures $figures, array $states): array
    {
        $parts = array_map(static fn (string $state): string => "{$figures->count} {$state}", $states);
        foreach (Stem::cases() as $stem) {
            $of = array_intersect_key($states, array_filter($mix->tracks, static fn (Track $track): bool => $track->stem === $stem));
            $parts["stem {$stem->value}"] = "{$figures->count} ".implode(' ', $of);
        }
        $found = $this->measures->rememberedEach($project, 'figures', $parts, static function (array $missing) use ($figures): array {
            $made = [];
            foreach (array_map(strval(...), $missing) as $part) {
                $made[$part] = self::predicted(str_starts_with($part, 'stem ') ? $figures->stem(Stem::from(substr($part, 5))) : $figures->track($part));
            }

            return $made;
        });

        return [
            'stems' => array_combine(array_column(Stem::cases(), 'value'), array_map(static fn (Stem $stem): array => $found["stem {$stem->value}"], Stem::cases())),
            'tracks' => array_map(static fn (string $id): array => ['id' => $id, ...$found[$id]], array_map(strval(...), array_keys($mix->tracks))),
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

    /** @return array<string, mixed> */
    private static function verdict(Predicted $programme, Aim $aim): array
    {
        $verdict = Verdict::of($programme, $aim);

        return ['off' => null === $verdict->off ? null : round($verdict->off, 1), 'met' => $verdict->met, 'mayPass' => $verdict->mayPass];
    }

    /**
     * Where samples pass full scale, or may, where the peaks are bounds.
     *
     * @param array<int, float> $peaks of those 100 ms that pass it, in order
     *
     * @return list<array{int, int, float}> from and to in samples, and the highest there in dBFS
     */
    private static function over(Mix $mix, array $peaks): array
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $places = [];
        $last = -2;
        foreach ($peaks as $k => $peak) {
            $db = round(20.0 * log10($peak), 2);
            $i = \count($places) - 1;
            if ($i >= 0 && $k - $last <= 5) {
                $places[$i] = [$places[$i][0], ($k + 1) * $frames, max($db, $places[$i][2])];
            } else {
                $places[] = [$k * $frames, ($k + 1) * $frames, $db];
            }
            $last = $k;
        }

        return \array_slice($places, 0, self::MOST_PLACES);
    }

    /**
     * @param array<string, string> $states by track
     *
     * @return array{outside: list<array<string, mixed>>, astray: list<array<string, mixed>>} where a track is outside the zone of its
     *                                                                                        stem, and how long in all: samples, seconds, dB
     */
    private function outside(Project $project, Mix $mix, MixFigures $figures, array $states): array
    {
        $frames = intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND);
        $aims = array_map(static fn (Track $track): string => json_encode([$mix->aim->zone($track->stem), $mix->aim->sensitivity], \JSON_THROW_ON_ERROR), $mix->tracks);
        $runs = $this->measures->rememberedEach(
            $project,
            'outside',
            array_combine(array_keys($states), array_map(static fn (string $state, string $aim): string => "{$figures->count} {$aim} {$state}", $states, $aims)),
            fn (array $missing): array => $this->runsOutside($project, $mix, $figures, array_map(strval(...), $missing)),
        );
        $found = $sums = [];
        foreach ($runs as $id => $ofTrack) {
            foreach ($ofTrack as [$first, $end, $by]) {
                $found[] = ['track' => (string) $id, 'from' => $first * $frames, 'to' => $end * $frames, 'by' => round($by, 1)];
            }
            foreach (LevelZone::sums($ofTrack) as $sum) {
                $sums[] = ['track' => (string) $id, 'above' => $sum['above'], 'seconds' => round($sum['tenths'] / TrackPower::TENTHS_PER_SECOND, 1), 'worst' => round($sum['worst'], 1)];
            }
        }

        return ['outside' => $found, 'astray' => $sums];
    }

    /**
     * @param list<string> $tracks ids
     *
     * @return array<string, list<array{int, int, float}>> as LevelZone finds them
     */
    private function runsOutside(Project $project, Mix $mix, MixFigures $figures, array $tracks): array
    {
        $activity = $this->measures->activityOf($project, $mix, $mix->aim->sensitivity);
        $runs = [];
        foreach ($tracks as $id) {
            $track = $mix->track($id);
            // A track is not too soft for what somebody says on another.
            $spoken = SpeechTimes::tenths(SpeechTimes::ofTrack($track, $activity), intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), $figures->count);
            $runs[$id] = (new LevelZone($track->stem, $mix->aim->zone($track->stem)))->outside($figures->tracks()[$id]->powers, $spoken);
        }

        return $runs;
    }

    /** @return list<?float> short-term loudness once a second, LUFS; null for silence */
    private static function history(MixFigures $figures): array
    {
        $history = [];
        foreach (Windows::along($figures->powers(), Windows::SHORT_TERM) as $stretches) {
            for ($k = 0, $n = \count($stretches); $k < $n; $k += 10) {
                $history[] = $stretches[$k] > 1e-9 ? round(Gating::loudness($stretches[$k]), 1) : null;
            }
        }

        return $history;
    }

    /** @return Generator<array{int, list<float>}> where each run of speech begins, in 100 ms, and its clearance in LU */
    private static function runs(Clearance $clearance): Generator
    {
        foreach ($clearance->runs() as $first => $values) {
            yield [$first, array_map(static fn (float $value): float => round($value, 1), $values)];
        }
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
