<?php

declare(strict_types=1);

namespace Wattage\App\Figures;

use Wattage\App\Entity\Project;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Loudness\PartFigures;
use Wattage\Core\Problem;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** How loud a part of a mix is, as it is or as an edit would make it, which is not kept. */
final readonly class PartMeasure
{
    private const MOST_CLIPS = 500;

    public function __construct(private Measures $measures)
    {
    }

    /**
     * @param Fields $wanted clips, and if wanted from and to on the timeline
     * @param mixed $edit an edit to try, as JSON; null for the mix as it is
     *
     * @return array{average: ?float, loudness: ?float, peak: ?float} dBFS, LUFS, dBFS
     *
     * @throws Problem
     */
    public function of(Project $project, Mix $mix, Fields $wanted, mixed $edit = null): array
    {
        $mix = null === $edit ? $mix : Change::by((new EditReader($mix))->read($edit), $mix);
        $clips = array_values(array_unique($wanted->strings('clips')));
        \count($clips) <= self::MOST_CLIPS || throw \Wattage\Core\Edit\InvalidEdit::tooMany('clips', self::MOST_CLIPS);
        $range = $wanted->has('from') ? Span::of($wanted->int('from'), $wanted->int('to')) : null;
        $found = PartFigures::of($mix, $clips, $range, $this->measures->tenthsOf($project));
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 2);

        return ['average' => $round($found->average), 'loudness' => $round($found->loudness), 'peak' => $round($found->peak)];
    }
}
