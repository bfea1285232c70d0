<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\Entity\Project;
use Wattage\App\Figures\Measures;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Timeline\Differences;

/** Two states of a project side by side. */
final readonly class Comparison
{
    public function __construct(private History $history, private Measures $measures)
    {
    }

    /** @return array{changes: list<string>, loudness: array{?float, ?float}} what changed on the way, and the loudness of both in LUFS, over the same moments */
    public function between(Project $project, int $from, int $to): array
    {
        $a = $this->history->mixAt($project, $from);
        $b = $this->history->mixAt($project, $to);
        $tenths = $this->measures->tenthsOf($project);

        return ['changes' => Differences::between($a, $b), 'loudness' => Gating::sideBySide(MixFigures::of($a, $tenths)->powers(), MixFigures::of($b, $tenths)->powers())];
    }
}
