<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\Core\Loudness\SourceAdvice;
use Wattage\Core\Timeline\Mix;

/** Sources as the browser gets them: what they are, what they measure, and the gain they should have. */
final readonly class SourceView
{
    public function __construct(private History $history)
    {
    }

    /**
     * @param list<Source> $sources
     *
     * @return list<array<string, mixed>>
     */
    public function all(Project $project, array $sources): array
    {
        $mix = $this->history->mix($project);

        return array_map(fn (Source $source): array => $this->view($source, $mix), $sources);
    }

    /** @return array<string, mixed> */
    public function one(Source $source): array
    {
        return $this->view($source, $this->history->mix($source->project));
    }

    /** @return array<string, mixed> */
    private function view(Source $source, Mix $mix): array
    {
        $ready = SourceState::Ready === $source->state;
        $advice = $ready ? SourceAdvice::of($mix, (string) $source->id, $source->averageDbfs, $source->peakDbfs ?? 0.0) : null;

        return [
            'id' => (string) $source->id,
            'name' => $source->name,
            'state' => $source->state->value,
            'size' => $source->size,
            'received' => $source->received,
            'progress' => $source->job->progress ?? 0.0,
            'problem' => $source->problem,
            'warning' => $source->warning,
            'format' => $source->format,
            'fileRate' => $source->fileRate,
            'channels' => $source->channels,
            'frames' => $source->frames,
            'peakDbfs' => $source->peakDbfs,
            'averageDbfs' => $source->averageDbfs,
            'loudness' => $source->loudness,
            'advice' => null === $advice ? null : ['use' => $advice->use->value, 'target' => $advice->target, 'gain' => $advice->gain, 'limit' => $advice->limit],
            'picture' => $source->picture->value,
            'beganAt' => $source->beganAt,
            'marks' => \count($source->marks),
        ];
    }
}
