<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use DateTimeImmutable;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Figures\Glance;
use Wattage\App\Project\History;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Project\ProjectCopy;
use Wattage\App\Request\Body;
use Wattage\App\Request\Once;
use Wattage\App\Security\Record;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;

/** The list of projects: create, copy, rename, delete, bring back. */
#[Route('/api/projects')]
final readonly class ProjectController
{
    public function __construct(private EntityManagerInterface $entities, private ProjectAccess $access, private History $history, private Once $once, private Record $record, #[Autowire('%env(int:WATTAGE_GRACE_DAYS)%')] private int $graceDays)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(): JsonResponse
    {
        $user = $this->access->user();
        /** @var list<Project> $projects */
        $projects = $this->entities->createQuery('SELECT p, m FROM '.Project::class.' p JOIN p.members m WHERE m.user = :user ORDER BY p.changedAt DESC')
            ->setParameter('user', $user->id, 'uuid')->getResult();

        return new JsonResponse(['projects' => array_map($this->view(...), $projects)]);
    }

    #[Route('', methods: 'POST')]
    public function create(Request $request): JsonResponse
    {
        $user = $this->access->user();
        $made = $this->once->run($request, $user, function () use ($request, $user): string {
            $body = Body::of($request);
            $body->onlyHave('name', 'frameRate');
            $frameRate = FrameRate::named($body->string('frameRate', FrameRate::F25->value));
            $project = new Project(Name::check($body->string('name')), $user);
            $this->entities->persist($project);
            $this->history->begin($project, $user, Mix::empty(frameRate: $frameRate));
            $this->entities->flush();

            return (string) $project->id;
        });

        return new JsonResponse($this->view($this->access->project(Uuid::fromString($made), Role::Owner, evenDeleted: true)), 201);
    }

    /** What the list shows of it beside its name. */
    #[Route('/{id}/glance', methods: 'GET')]
    public function glance(Uuid $id, Glance $glance): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $head = $this->history->head($project);

        return new JsonResponse([...$glance->of($project, $this->history->mix($project)), 'label' => $head->label, 'by' => ($project->movedBy ?? $head->author)->name]);
    }

    #[Route('/{id}', methods: 'PATCH')]
    public function rename(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Owner);
        $project->name = Name::check(Body::of($request)->string('name'));
        $this->entities->flush();

        return new JsonResponse($this->view($project));
    }

    #[Route('/{id}', methods: 'DELETE')]
    public function delete(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Owner);
        $project->deletedAt = new DateTimeImmutable();
        $this->entities->flush();
        $this->record->ofProject($project, $this->access->user(), 'deleted the project');

        return new JsonResponse($this->view($project));
    }

    #[Route('/{id}/copy', methods: 'POST')]
    public function copy(Uuid $id, Request $request, ProjectCopy $copies): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $made = $this->once->run($request, $this->access->user(), fn (): string => (string) $copies->of($project, $this->access->user(), Body::of($request)->string('name'))->id);

        return new JsonResponse($this->view($this->access->project(Uuid::fromString($made), Role::Owner, evenDeleted: true)), 201);
    }

    #[Route('/{id}/restore', methods: 'POST')]
    public function restore(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Owner, evenDeleted: true);
        $project->deletedAt = null;
        $this->entities->flush();
        $this->record->ofProject($project, $this->access->user(), 'took the project back');

        return new JsonResponse($this->view($project));
    }

    /** @return array<string, mixed> */
    private function view(Project $project): array
    {
        return [
            'id' => (string) $project->id,
            'name' => $project->name,
            'role' => $project->roleOf($this->access->user())?->value,
            'createdAt' => $project->createdAt->format(\DATE_ATOM),
            'changedAt' => $project->changedAt->format(\DATE_ATOM),
            'deletedAt' => $project->deletedAt?->format(\DATE_ATOM),
            'goneAt' => $project->deletedAt?->modify("+{$this->graceDays} days")->format(\DATE_ATOM),
        ];
    }
}
