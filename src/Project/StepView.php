<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Symfony\Component\HttpFoundation\JsonResponse;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;

/** A step as the browser gets it: what changed from the state it shows, and where in the history it now stands. */
final readonly class StepView
{
    public function __construct(private History $history, private Revisions $revisions, private Others $others, private ProjectAccess $access)
    {
    }

    public function answer(Step $step): JsonResponse
    {
        return self::response([
            'from' => $step->from->number,
            'changes' => MixView::changes($this->revisions->mix($step->from), $this->revisions->mix($step->to)),
            'others' => $this->others->since($step, $this->access->user()),
            ...$this->place($step->project, $step->to),
        ], $step->to);
    }

    /** @return array<string, mixed> */
    public function place(Project $project, Revision $head): array
    {
        return [
            'revision' => $head->number,
            'label' => $head->label,
            'author' => ['id' => (string) $head->author->id, 'name' => $head->author->name],
            'before' => $head->parent,
            'canUndo' => null !== $head->parent,
            'canRedo' => $this->history->canRedo($project),
        ];
    }

    /** @param array<string, mixed> $content */
    public static function response(array $content, Revision $revision): JsonResponse
    {
        return new JsonResponse($content, headers: ['ETag' => "\"{$revision->number}\"", 'Cache-Control' => 'no-store']);
    }
}
