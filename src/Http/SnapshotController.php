<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\Snapshot;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Project\Revisions;
use Wattage\App\Request\Body;
use Wattage\Core\Timeline\Name;

/** Named states of a mix. */
final readonly class SnapshotController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities)
    {
    }

    #[Route('/api/projects/{id}/snapshots', methods: 'GET')]
    public function list(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $snapshots = $this->entities->getRepository(Snapshot::class)->findBy(['project' => $project], ['createdAt' => 'ASC', 'id' => 'ASC']);

        return new JsonResponse(['snapshots' => array_map($this->view(...), $snapshots)]);
    }

    /** Names a state: the one that the screen shows, else the present. */
    #[Route('/api/projects/{id}/snapshots', methods: 'POST')]
    public function take(Uuid $id, Request $request, Revisions $revisions): JsonResponse
    {
        $project = $this->access->project($id, Role::Editor);
        $body = Body::of($request);
        $revision = $revisions->numbered($project, $body->int('revision', 1, default: $project->head))->number;
        $snapshot = new Snapshot($project, $revision, Name::check($body->string('name')), $this->access->user());
        $this->entities->persist($snapshot);
        $this->entities->flush();

        return new JsonResponse($this->view($snapshot), 201);
    }

    #[Route('/api/snapshots/{id}', methods: 'PATCH')]
    public function rename(Uuid $id, Request $request): JsonResponse
    {
        $snapshot = $this->access->snapshot($id, Role::Editor);
        $snapshot->name = Name::check(Body::of($request)->string('name'));
        $this->entities->flush();

        return new JsonResponse($this->view($snapshot));
    }

    /** Only the name goes; the state stays in the history. */
    #[Route('/api/snapshots/{id}', methods: 'DELETE')]
    public function remove(Uuid $id): Response
    {
        $this->entities->remove($this->access->snapshot($id, Role::Editor));
        $this->entities->flush();

        return new Response(status: 204);
    }

    /** @return array<string, mixed> */
    private function view(Snapshot $snapshot): array
    {
        return [
            'id' => (string) $snapshot->id,
            'name' => $snapshot->name,
            'revision' => $snapshot->revision,
            'createdAt' => $snapshot->createdAt->format('Y-m-d\TH:i:s\Z'),
            'author' => $snapshot->author->name,
        ];
    }
}
