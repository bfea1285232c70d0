<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Wattage\App\Entity\Project;
use Wattage\App\Figures\TrackPowers;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Handover\GuardActs;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Timeline\Mix;

/** Where a peak guard had to act, on the timeline, and which track is the reason: the one whose own peak is highest there. */
final readonly class GuardPlaces
{
    private const MOST = 100;

    public function __construct(private TrackPowers $powers)
    {
    }

    /** @return list<array{from: int, to: int, at: int, db: float, track: ?string}> the hardest first; samples of the timeline */
    public function of(Project $project, Mix $mix, FileOrder $order, GuardActs $acts): array
    {
        if ([] === $acts->places) {
            return [];
        }
        $places = $acts->places;
        usort($places, static fn (array $a, array $b): int => $b[3] <=> $a[3]);
        // Kept apart from what the screens ask for, which would be forgotten otherwise.
        $tracks = $this->powers->of($project, $order->excerpt->of($mix), kind: 'handover ')->tracks();
        $from = $order->excerpt->span($mix)->from;
        $position = static fn (int $frame): int => $from + (int) ($frame * $mix->rate / $order->rate);
        $told = [];
        foreach (\array_slice($places, 0, self::MOST) as [$first, $last, $highest, $db]) {
            $tenth = intdiv($position($highest) * TrackPower::TENTHS_PER_SECOND, $mix->rate);
            $loudest = null;
            $peak = 0.0;
            foreach ($tracks as $id => $track) {
                if (isset($track->peaks[$tenth]) && $track->peaks[$tenth] > $peak) {
                    [$peak, $loudest] = [$track->peaks[$tenth], (string) $id];
                }
            }
            $told[] = ['from' => $position($first), 'to' => $position($last) + 1, 'at' => $position($highest), 'db' => round($db, 2), 'track' => $loudest];
        }

        return $told;
    }
}
