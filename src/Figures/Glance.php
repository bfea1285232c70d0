<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Loudness\Skyline;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** What a project is, at a glance: for the list of all of them. */
final readonly class Glance
{
    private const COLUMNS = 120;

    public function __construct(private TrackPowers $powers)
    {
    }

    /** @return array{seconds: float, loudness: ?float, speech: list<?float>, rest: list<?float>, people: list<string>} loudness in LUFS */
    public function of(Project $project, Mix $mix): array
    {
        $figures = $this->powers->of($project, $mix);
        $loudness = $figures->programme()->integrated;

        return [
            'seconds' => round($mix->length() / $mix->rate, 3),
            'loudness' => null === $loudness ? null : round($loudness, 1),
            'speech' => Skyline::of($figures->powersOf(Stem::Speech), self::COLUMNS),
            'rest' => Skyline::of($figures->powersOf(Stem::Speech, others: true), self::COLUMNS),
            'people' => $project->people(),
        ];
    }
}
