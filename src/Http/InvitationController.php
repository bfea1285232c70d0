<?php

declare(strict_types=1);

namespace Wattage\App\Http;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\HttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Invitation;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\User;
use Wattage\App\People\Invitations;
use Wattage\App\People\Passwords;
use Wattage\App\Project\ProjectAccess;
use Wattage\App\Request\Body;
use Wattage\App\Request\Once;
use Wattage\App\Security\PasswordAuthenticator;
use Wattage\App\Security\Record;
use Wattage\App\Security\SignedIn;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Timeline\Name;

/** Invitations: sent and withdrawn by owners, taken up by whom they are for. */
final readonly class InvitationController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Invitations $invitations, private Once $once, private Record $record)
    {
    }

    #[Route('/api/projects/{id}/invitations', methods: 'POST')]
    public function invite(Uuid $id, Request $request): JsonResponse
    {
        $project = $this->access->project($id, Role::Owner);
        $made = $this->once->run($request, $this->access->user(), function () use ($project, $request): string {
            $body = Body::of($request);
            $role = Role::tryFrom($body->string('role')) ?? throw InvalidDocument::wrongType('role', 'owner, editor or viewer');

            $invitation = $this->invitations->invite($project, $this->access->user(), $body->string('email'), $role);
            $this->record->ofProject($project, $this->access->user(), "invited {$invitation->email} as {$role->words()}");

            return (string) $invitation->id;
        });
        $invitation = $this->entities->find(Invitation::class, $made);

        return new JsonResponse(null === $invitation ? null : self::view($invitation), 201);
    }

    #[Route('/api/invitations/{id}', methods: 'DELETE')]
    public function withdraw(Uuid $id): Response
    {
        $invitation = $this->access->invitation($id, Role::Owner);
        $this->entities->remove($invitation);
        $this->entities->flush();
        $this->record->ofProject($invitation->project, $this->access->user(), "withdrew the invitation of {$invitation->email}");

        return new Response(status: 204);
    }

    /** What an invitation is to; the link is all that is needed to ask. */
    #[Route('/api/join/{token}', requirements: ['token' => '[\w-]{20,100}'], methods: 'GET')]
    public function show(string $token): JsonResponse
    {
        $invitation = $this->invitations->byToken($token);

        return new JsonResponse([
            'project' => $invitation->project->name,
            'invitedBy' => $invitation->invitedBy->name,
            'email' => $invitation->email,
            'role' => $invitation->role->value,
            'hasAccount' => null !== $this->invitations->account($invitation->email),
        ], headers: ['Cache-Control' => 'no-store']);
    }

    /** Takes it up: with the account it is for, or with a new one, which it makes. */
    #[Route('/api/join/{token}', requirements: ['token' => '[\w-]{20,100}'], methods: 'POST')]
    public function join(string $token, Request $request, Security $security, Passwords $passwords, SignedIn $signedIn): JsonResponse
    {
        $invitation = $this->invitations->byToken($token);
        $user = $security->getUser();
        $account = $this->invitations->account($invitation->email);
        if ($user instanceof User && $user->email !== $invitation->email) {
            throw new HttpException(403, "This invitation is for {$invitation->email}, and you are signed in as {$user->email}. Sign out first.");
        }
        if (null !== $account && null === $user) {
            throw new HttpException(403, "{$invitation->email} has an account. Sign in with it to join.");
        }
        $invitation = $this->invitations->accept($token, fn (Invitation $invitation): User => $account ?? $this->newAccount($invitation, Body::of($request), $passwords));
        $joined = $this->invitations->account($invitation->email);
        null === $joined || $this->record->ofProject($invitation->project, $joined, "joined as {$invitation->role->words()}");
        if (null === $user && null !== $joined) {
            $security->login($joined, PasswordAuthenticator::class);
            $signedIn->note($joined, $request);
        }

        return new JsonResponse(['project' => (string) $invitation->project->id]);
    }

    private function newAccount(Invitation $invitation, Fields $body, Passwords $passwords): User
    {
        $account = new User($invitation->email, Name::check($body->string('name')));
        $passwords->set($account, $body->string('password'));
        $this->entities->persist($account);

        return $account;
    }

    /** @return array<string, mixed> */
    public static function view(Invitation $invitation): array
    {
        return [
            'id' => (string) $invitation->id,
            'email' => $invitation->email,
            'role' => $invitation->role->value,
            'invitedBy' => $invitation->invitedBy->name,
            'expiresAt' => $invitation->expiresAt->format(\DATE_ATOM),
            'expired' => $invitation->isExpired(),
        ];
    }
}
