<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
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
        $project = $this->entities->find(Project::class, $id) ?? throw new NotFoundHttpException('There is no such project among yours.');

        return $this->checked($project, $needed, $evenDeleted);
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function source(Uuid $id, Role $needed): Source
    {
        $source = $this->entities->find(Source::class, $id) ?? throw new NotFoundHttpException('There is no such source among yours.');
        $this->checked($source->project, $needed);

        return $source;
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function delivery(Uuid $id, Role $needed): Delivery
    {
        $delivery = $this->entities->find(Delivery::class, $id) ?? throw new NotFoundHttpException('There is no such delivery among yours.');
        $this->checked($delivery->project, $needed);

        return $delivery;
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function snapshot(Uuid $id, Role $needed): Snapshot
    {
        $snapshot = $this->entities->find(Snapshot::class, $id) ?? throw new NotFoundHttpException('There is no such snapshot among yours.');
        $this->checked($snapshot->project, $needed);

        return $snapshot;
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function invitation(Uuid $id, Role $needed): Invitation
    {
        $invitation = $this->entities->find(Invitation::class, $id) ?? throw new NotFoundHttpException('There is no such invitation among yours.');
        $this->checked($invitation->project, $needed);

        return $invitation;
    }

    /** @throws NotFoundHttpException|AccessDeniedException */
    public function comment(Uuid $id, Role $needed): Comment
    {
        $comment = $this->entities->find(Comment::class, $id) ?? throw new NotFoundHttpException('This comment is not there any more.');
        $this->checked($comment->project, $needed);

        return $comment;
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
