<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Invitation;
use Wattage\App\Entity\Membership;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\User;
use Wattage\App\People\Members;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\App\Security\Record;
use Wattage\Core\Interchange\InvalidDocument;

/** Who works on a project, in which role. */
#[Route('/api/projects/{id}/members')]
final readonly class MemberController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Members $members, private Record $record)
    {
    }

    /** E-mail addresses of others, and invitations that wait, are for owners. */
    #[Route('', methods: 'GET')]
    public function list(Uuid $id): JsonResponse
    {
        $project = $this->access->project($id, Role::Viewer);
        $user = $this->access->user();
        $owns = Role::Owner === $project->roleOf($user);
        $members = $this->entities->getRepository(Membership::class)->findBy(['project' => $project]);
        usort($members, static fn (Membership $a, Membership $b): int => $a->user->name <=> $b->user->name);
        $waiting = $owns ? $this->entities->getRepository(Invitation::class)->findBy(['project' => $project, 'acceptedAt' => null], ['createdAt' => 'ASC']) : [];

        return new JsonResponse([
            'members' => array_map(static fn (Membership $m): array => [
                'account' => (string) $m->user->id, 'name' => $m->user->name, 'role' => $m->role->value, 'email' => $owns || $m->user->is($user) ? $m->user->email : null,
            ], $members),
            'invitations' => array_map(InvitationController::view(...), $waiting),
        ]);
    }

    #[Route('/{account}', methods: 'PATCH')]
    public function change(Uuid $id, Uuid $account, Request $request): Response
    {
        $project = $this->access->project($id, Role::Owner);
        $role = Role::tryFrom(Body::of($request)->string('role')) ?? throw InvalidDocument::wrongType('role', 'owner, editor or viewer');
        $member = $this->member($project, $account);
        $this->members->change($project, $member, $role);
        $this->record->ofProject($project, $this->access->user(), "made {$member->user->name} ({$member->user->email}) {$role->words()}");

        return new Response(status: 204);
    }

    /** Owners remove anybody; everybody may leave. */
    #[Route('/{account}', methods: 'DELETE')]
    public function remove(Uuid $id, Uuid $account): Response
    {
        $project = $this->access->project($id, $this->access->user()->id->equals($account) ? Role::Viewer : Role::Owner);
        $member = $this->member($project, $account);
        $this->members->remove($project, $member);
        $this->record->ofProject($project, $this->access->user(), $member->user->is($this->access->user()) ? 'left the project' : "removed {$member->user->name} ({$member->user->email})");

        return new Response(status: 204);
    }

    /** Who signed in, shared and deleted. */
    #[Route('/record', methods: 'GET')]
    public function record(Uuid $id): JsonResponse
    {
        return new JsonResponse(['entries' => $this->record->about($this->access->project($id, Role::Owner))]);
    }

    private function member(Project $project, Uuid $account): Membership
    {
        $user = $this->entities->find(User::class, $account);

        return (null === $user ? null : $this->entities->getRepository(Membership::class)->findOneBy(['project' => $project, 'user' => $user]))
            ?? throw new NotFoundHttpException('This person is not a member of the project any more.');
    }
}
