<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;
use Symfony\Component\Uid\Uuid;
use Wattage\App\Entity\Comment;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Invitation;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\Snapshot;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\User;

/** The one door to projects and what belongs to them: to people who are not members, they do not exist. */
final readonly class ProjectAccess
{
    public function __construct(private EntityManagerInterface $entities, private Security $security)
    {
    }

    public function user(): User
    {
        $user = $this->security->getUser();

        return $user instanceof User ? $user : throw new AccessDeniedException();
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function project(Uuid $id, Role $needed, bool $evenDeleted = false): Project
    {
        /** @var ?Project $project */
        $project = $this->entities->createQuery('SELECT p, m FROM '.Project::class.' p LEFT JOIN p.members m WHERE p.id = :id')
            ->setParameter('id', $id, UuidType::NAME)->getOneOrNullResult();
        null !== $project || throw new NotFoundHttpException('There is no such project among yours.');

        return $this->checked($project, $needed, $evenDeleted);
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function source(Uuid $id, Role $needed): Source
    {
        return $this->part(Source::class, $id, $needed) ?? throw new NotFoundHttpException('There is no such source among yours.');
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function delivery(Uuid $id, Role $needed): Delivery
    {
        return $this->part(Delivery::class, $id, $needed) ?? throw new NotFoundHttpException('There is no such delivery among yours.');
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function snapshot(Uuid $id, Role $needed): Snapshot
    {
        return $this->part(Snapshot::class, $id, $needed) ?? throw new NotFoundHttpException('There is no such snapshot among yours.');
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function invitation(Uuid $id, Role $needed): Invitation
    {
        return $this->part(Invitation::class, $id, $needed) ?? throw new NotFoundHttpException('There is no such invitation among yours.');
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function comment(Uuid $id, Role $needed): Comment
    {
        return $this->part(Comment::class, $id, $needed) ?? throw new NotFoundHttpException('This comment is not there any more.');
    }

    /**
     * With its project and the members of that, all at once.
     *
     * @template T of Source|Delivery|Snapshot|Invitation|Comment
     *
     * @param class-string<T> $kind
     *
     * @return ?T
     */
    private function part(string $kind, Uuid $id, Role $needed): Source|Delivery|Snapshot|Invitation|Comment|null
    {
        /** @var ?T $part */
        $part = $this->entities->createQuery("SELECT e, p, m FROM {$kind} e JOIN e.project p LEFT JOIN p.members m WHERE e.id = :id")
            ->setParameter('id', $id, UuidType::NAME)->getOneOrNullResult();
        if (null !== $part) {
            $this->checked($part->project, $needed);
        }

        return $part;
    }

    /** With a project, all that belongs to it is deleted. */
    private function checked(Project $project, Role $needed, bool $evenDeleted = false): Project
    {
        if ((null !== $project->deletedAt && !$evenDeleted) || !$this->security->isGranted(Role::Viewer->value, $project)) {
            throw new NotFoundHttpException('There is no such project among yours.');
        }
        $this->security->isGranted($needed->value, $project) || throw new AccessDeniedException();

        return $project;
    }
}
