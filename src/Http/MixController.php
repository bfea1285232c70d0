<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Revision;
use Wattage\App\Entity\Role;
use Wattage\App\Project\History;
use Wattage\App\Project\MixView;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Project\Step;
use Wattage\Core\Interchange\MixDocument;

/** The mix of a project and what is done to it. */
#[Route('/api/projects/{id}')]
final readonly class MixController
{
    public function __construct(private ProjectAccess $access, private History $history)
    {
    }

    #[Route('/mix', methods: 'GET')]
    public function show(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $head = $this->history->head($project);

        return $this->answer([
            'project' => ['id' => (string) $project->id, 'name' => $project->name, 'role' => $project->roleOf($this->access->user())?->value],
            'mix' => MixView::whole(MixDocument::decode($head->mix)),
            ...$this->state($project, $head),
        ], $head);
    }

    /** The mix as a file in the open format. */
    #[Route('/mix.json', methods: 'GET')]
    public function export(Uuid $id): JsonResponse
    {
        $head = $this->history->head($this->access->project($id, Role::Viewer));

        return JsonResponse::fromJsonString($head->mix, headers: ['Content-Disposition' => 'attachment; filename="mix.json"']);
    }

    #[Route('/edits', methods: 'POST')]
    public function edit(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);

        return $this->step($this->history->edit($project, $this->access->user(), $this->base($request), Body::json($request)));
    }

    #[Route('/undo', methods: 'POST')]
    public function undo(Uuid $id): JsonResponse
    {
        return $this->step($this->history->undo($this->access->project($id, Role::Editor)));
    }

    #[Route('/redo', methods: 'POST')]
    public function redo(Uuid $id): JsonResponse
    {
        return $this->step($this->history->redo($this->access->project($id, Role::Editor)));
    }

    /** Back, or forth, to any state. */
    #[Route('/head', methods: 'PUT')]
    public function goTo(Uuid $id, Request $request): JsonResponse
    {
        return $this->step($this->history->goTo($this->access->project($id, Role::Editor), Body::of($request)->int('revision', 1)));
    }

    #[Route('/history', methods: 'GET')]
    public function history(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);

        return new JsonResponse(['head' => $project->head, 'revisions' => $this->history->line($project)]);
    }

    /** The revision an edit was made on, from If-Match: "12". */
    private function base(Request $request): int
    {
        $match = trim((string) $request->headers->get('If-Match'), ' "');

        return ctype_digit($match) && \strlen($match) < 10 ? (int) $match : throw new HttpException(428, 'An edit must name the revision it was made on, in If-Match.');
    }

    private function step(Step $step): JsonResponse
    {
        return $this->answer(['changes' => MixView::changes($step->before, $step->after), ...$this->state($step->project, $step->to)], $step->to);
    }

    /** @return array<string, mixed> */
    private function state(Project $project, Revision $head): array
    {
        return ['revision' => $head->number, 'label' => $head->label, 'canUndo' => null !== $head->parent, 'canRedo' => $this->history->canRedo($project)];
    }

    /** @param array<string, mixed> $content */
    private function answer(array $content, Revision $revision): JsonResponse
    {
        return new JsonResponse($content, headers: ['ETag' => "\"{$revision->number}\"", 'Cache-Control' => 'no-store']);
    }
}
