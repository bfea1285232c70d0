<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Interchange\ClipDocument;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** How loud the tracks of a mix are over time; those that are as they were last are not worked out again. */
final readonly class TrackPowers
{
    public function __construct(private Measures $measures)
    {
    }

    /**
     * @param ?array<string, string> $states as {@see states()} has them, where they are known already
     * @param string $kind what is remembered apart from the mix itself: without ducking, say
     */
    public function of(Project $project, Mix $mix, ?array $states = null, string $kind = ''): MixFigures
    {
        $states ??= self::states($mix);
        $tenths = $this->measures->tenthsOf($project);

        return MixFigures::of($mix, $tenths, fn (Track $track, int $count): TrackPower => TrackPower::fromBytes($this->measures->remembered(
            $project,
            "power {$kind}{$track->id}",
            "{$count} {$states[$track->id]}",
            static fn (): string => TrackPower::of($mix, $track, $tenths, $count)->toBytes(),
        )));
    }

    /** @return array<string, string> by track: all that its loudness depends on */
    public static function states(Mix $mix): array
    {
        return array_map(static function (Track $track) use ($mix): string {
            $sources = array_intersect_key($mix->sources, array_flip(array_column($track->clips, 'source')));
            $shown = array_diff_key(MixDocument::trackToArray($track), ['name' => 0, 'hue' => 0, 'locked' => 0]);

            return json_encode([
                $shown, CurveDocument::levelToJson($mix->faders->of($track->stem)),
                array_map(ClipDocument::toArray(...), array_values($track->clips)),
                array_map(MixDocument::sourceToArray(...), array_values($sources)),
            ], \JSON_THROW_ON_ERROR);
        }, $mix->tracks);
    }
}
