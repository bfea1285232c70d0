<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Closure;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Project\History;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Project\StepView;
use Wattage\App\Request\Body;
use Wattage\App\Request\Once;

/**
 * All that makes another state the present one. Each step names the revision that the screen shows, and is answered with all that leads from
 * there to the present, whoever did it.
 */
final readonly class StepController
{
    public function __construct(private ProjectAccess $access, private History $history, private StepView $steps, private Once $once)
    {
    }

    #[Route('/api/projects/{id}/edits', methods: 'POST')]
    public function edit(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $instead = $request->query->getBoolean('instead');

        return $this->step($project, $request, fn (int $base) => $this->history->edit($project, $this->access->user(), $base, Body::json($request, Body::MAX_EDIT_BYTES), $instead));
    }

    #[Route('/api/projects/{id}/undo', methods: 'POST')]
    public function undo(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $evenOthers = '' !== $request->getContent() && Body::of($request)->bool('evenOthers', false);

        return $this->step($project, $request, fn (int $base) => $this->history->undo($project, $this->access->user(), $base, $evenOthers));
    }

    #[Route('/api/projects/{id}/redo', methods: 'POST')]
    public function redo(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);

        return $this->step($project, $request, fn (int $base) => $this->history->redo($project, $this->access->user(), $base));
    }

    /** Back, or forth, to any state. */
    #[Route('/api/projects/{id}/head', methods: 'PUT')]
    public function goTo(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);

        return $this->step($project, $request, fn (int $base) => $this->history->goTo($project, $this->access->user(), $base, Body::of($request)->int('revision', 1)));
    }

    /** Takes the state up again as a new step; undo leads back to the present one. */
    #[Route('/api/snapshots/{id}/take-up', methods: 'POST')]
    public function takeUp(Uuid $id, Request $request): JsonResponse
    {
        $snapshot = $this->access->snapshot($id, Role::Editor);

        return $this->step($snapshot->project, $request, fn (int $base) => $this->history->takeUp($snapshot->project, $this->access->user(), $base, $snapshot->revision, "Go back to snapshot “{$snapshot->name}”"));
    }

    /** @param Closure(int): void $do from the base */
    private function step(Project $project, Request $request, Closure $do): JsonResponse
    {
        $base = self::base($request);
        $this->once->run($request, $this->access->user(), static function () use ($do, $base, $project): string {
            $do($base);

            return (string) $project->head;
        });

        return $this->steps->answer($this->history->since($project, $base));
    }

    /** The revision that the screen shows, from If-Match: "12". */
    private static function base(Request $request): int
    {
        $match = trim((string) $request->headers->get('If-Match'), ' "');

        return ctype_digit($match) && \strlen($match) < 10 ? (int) $match : throw new HttpException(428, 'A step must name the revision it was made on, in If-Match.');
    }
}
