<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Closure;
use Wattage\App\Entity\Project;
use Wattage\Core\Clarity\Clarity;
use Wattage\Core\Clarity\Covered;
use Wattage\Core\Clarity\Lacking;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Timeline\Mix;

/** How clearly the speech of a project is understood, as the browser gets it. */
final readonly class ClarityFigures
{
    /** Rows of bands that are looked at together: forty tracks of two hours, or two of a day. More would not fit into the memory of a request. */
    private const MOST_ROWS = 40 * 2 * 36_000;

    public function __construct(private Measures $measures, private TrackPowers $powers, private TrackSpectra $spectra)
    {
    }

    private function measured(Project $project, Mix $mix): Clarity
    {
        $speech = SpeechTimes::of($mix, $this->measures->activityOf($project, $mix, $mix->aim->sensitivity));

        return Clarity::remembering(
            fn (array $states, Closure $make): array => $this->measures->rememberedEach($project, 'clarity', $states, $make),
            $mix,
            $this->spectra->of($project, $mix, $this->powers->of($project, $mix)),
            $speech,
            $mix->aim->clarity,
            $mix->aim->room,
        );
    }

    /** @return array<string, mixed> */
    public function of(Project $project, Mix $mix): array
    {
        if (\count($mix->tracks) * intdiv($mix->length() * TrackPower::TENTHS_PER_SECOND, $mix->rate) > self::MOST_ROWS) {
            return ['clarity' => [], 'average' => null, 'clearPart' => null, 'covered' => [], 'lacking' => [], 'tooLong' => true];
        }
        $clarity = $this->measured($project, $mix);

        return [
            'tooLong' => false,
            'clarity' => self::runs($clarity->values),
            'average' => null === $clarity->average ? null : round($clarity->average, 1),
            'clearPart' => $clarity->clearPart,
            'covered' => array_map(static fn (Covered $c): array => [
                'from' => $c->span->from, 'to' => $c->span->to, 'worst' => $c->worst, 'track' => $c->track, 'fromHz' => $c->fromHz, 'toHz' => $c->toHz,
            ], $clarity->covered),
            'lacking' => array_map(static fn (Lacking $l): array => ['source' => $l->source, 'rate' => $l->rate, 'hz' => $l->hz, 'most' => $l->most], Lacking::in($mix, fn (string $id): ?int => $this->measures->source($project, $id)?->fileRate)),
        ];
    }

    /** @return list<array{int, list<int>}> where each run of speech begins, in 100 ms, and how clear it is, 0 … 100 */
    private static function runs(string $values): array
    {
        $runs = [];
        foreach (preg_split('/\xFF+/', $values, -1, \PREG_SPLIT_NO_EMPTY | \PREG_SPLIT_OFFSET_CAPTURE) ?: [] as [$run, $first]) {
            $runs[] = [$first, array_map(ord(...), str_split($run))];
        }

        return $runs;
    }
}
