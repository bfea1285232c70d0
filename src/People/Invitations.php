<?php

declare(strict_types=1);

namespace Wattage\App\People;

use Closure;
use DateTimeImmutable;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\GoneHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Wattage\App\Entity\Invitation;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\User;
use Wattage\Core\Problem;

/** Inviting people by e-mail address, and taking an invitation up. */
final readonly class Invitations
{
    /** Invitations of a project that may wait at once: it is no way to send mail to the world. */
    private const MOST_WAITING = 100;

    public function __construct(private EntityManagerInterface $entities, private Letters $letters)
    {
    }

    /**
     * One that waits for the same address is put out of force.
     *
     * @param string $email as typed
     *
     * @throws Problem
     */
    public function invite(Project $project, User $by, string $email, Role $role): Invitation
    {
        $email = mb_strtolower(trim($email));
        mb_strlen($email) <= 180 && false !== filter_var($email, \FILTER_VALIDATE_EMAIL) || throw Refusal::notAnAddress();
        $email !== $by->email || throw Refusal::oneself();
        $known = $this->account($email);
        null === $known || null === $project->roleOf($known) || throw Refusal::memberAlready($known->name);
        $this->entities->getRepository(Invitation::class)->count(['project' => $project, 'acceptedAt' => null]) < self::MOST_WAITING || throw Refusal::tooManyInvitations(self::MOST_WAITING);
        $link = SecretLink::fresh();
        $invitation = $this->entities->wrapInTransaction(function () use ($project, $by, $email, $role, $link): Invitation {
            foreach ($this->entities->getRepository(Invitation::class)->findBy(['project' => $project, 'email' => $email, 'acceptedAt' => null]) as $earlier) {
                $this->entities->remove($earlier);
            }
            $invitation = new Invitation($project, $by, $email, $role, $link->hash());
            $this->entities->persist($invitation);

            return $invitation;
        });
        $this->letters->invitation($invitation, $link);

        return $invitation;
    }

    /** @throws NotFoundHttpException|GoneHttpException when there is none, it was withdrawn, used by somebody, or is too old */
    public function byToken(string $token): Invitation
    {
        $invitation = $this->entities->getRepository(Invitation::class)->findOneBy(['tokenHash' => SecretLink::hashOf($token)]);
        if (null === $invitation || null !== $invitation->project->deletedAt) {
            throw new NotFoundHttpException('This invitation is not valid, or was withdrawn. Ask for another one.');
        }
        null === $invitation->acceptedAt || throw new GoneHttpException('This invitation was used already. Sign in to see the project.');
        !$invitation->isExpired() || throw new GoneHttpException('This invitation is too old. Ask for another one.');

        return $invitation;
    }

    public function account(string $email): ?User
    {
        return $this->entities->getRepository(User::class)->findOneBy(['email' => $email]);
    }

    /**
     * @param Closure(Invitation): User $who for whom, once it is sure that nobody else takes it up at this moment
     *
     * @throws Problem|NotFoundHttpException|GoneHttpException
     */
    public function accept(string $token, Closure $who): Invitation
    {
        return $this->entities->wrapInTransaction(function () use ($token, $who): Invitation {
            $invitation = $this->byToken($token);
            $this->entities->refresh($invitation, LockMode::PESSIMISTIC_WRITE);
            $invitation = $this->byToken($token);
            $user = $who($invitation);
            $known = $invitation->project->roleOf($user);
            // Who has become more than that in the meantime stays it.
            true === $known?->includes($invitation->role) || $invitation->project->share($user, $invitation->role);
            $invitation->acceptedAt = new DateTimeImmutable();

            return $invitation;
        });
    }
}
