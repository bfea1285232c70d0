<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Edit\Clip\SetClipColours;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Interchange\ColourDocument;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Loudness\EvenColour;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;

/** Works out what evening up the colour of clips would do, as an edit to look at and to hear before it is made. */
final readonly class ColourPlans
{
    private const MOST_CLIPS = 50;

    public function __construct(private Measures $measures)
    {
    }

    /**
     * @param Fields $wanted clips; to: id of the clip whose colour they are to have
     *
     * @throws Problem
     */
    public function plan(Project $project, Mix $mix, Fields $wanted): LevelPlan
    {
        $bandsOf = $this->measures->bandsOf($project);
        $spectrumOf = static function (string $id, bool $toned) use ($mix, $bandsOf): ?array {
            $clip = $mix->clip($id);
            $bands = $bandsOf($clip->source);

            return null === $bands ? null : EvenColour::spectrum($mix, $clip, $bands, $toned ? $clip->colour : new Colour($clip->colour->lowCut));
        };
        $like = $spectrumOf($wanted->string('to'), true) ?? throw InvalidEdit::noColour($mix->clip($wanted->string('to'))->name);
        $rows = $colours = [];
        foreach (\array_slice($wanted->names('clips'), 0, self::MOST_CLIPS) as $id) {
            $now = $id === $wanted->string('to') ? null : $spectrumOf($id, false);
            if (null === $now) {
                continue;
            }
            [$tone, $after] = EvenColour::fit($now, $like, $mix->rate);
            $colours[$id] = new Colour($mix->clip($id)->colour->lowCut, $tone);
            $rows[] = [
                'clip' => $id, 'hertz' => ThirdOctaves::CENTRES, 'now' => self::rounded($now), 'wanted' => self::rounded($like), 'after' => self::rounded($after),
                'off' => round(EvenColour::between($now, $like), 1), 'left' => round(EvenColour::between($after, $like), 1), 'colour' => ColourDocument::toArray($colours[$id]),
            ];
        }
        if ([] === $colours) {
            return LevelPlan::ofNothing($mix, $rows);
        }
        $ids = array_map(strval(...), array_keys($colours));
        $listed = array_map(static fn (string $id): array => ['clip' => $id, 'colour' => ColourDocument::toArray($colours[$id])], $ids);

        return new LevelPlan($rows, ['edit' => 'set-clip-colours', 'colours' => $listed], $ids, (new SetClipColours($colours))->apply($mix));
    }

    /**
     * @param list<float> $levels
     *
     * @return list<float>
     */
    private static function rounded(array $levels): array
    {
        return array_map(static fn (float $db): float => round($db, 1), $levels);
    }
}
