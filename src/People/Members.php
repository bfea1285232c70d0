<?php

declare(strict_types=1);

namespace Wattage\App\People;

use Closure;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Membership;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\Core\Problem;

/** The members of a project and their roles. A project always keeps an owner. */
final readonly class Members
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @throws Problem when nobody would be owner any more */
    public function change(Project $project, Membership $member, Role $role): void
    {
        $this->keepingAnOwner($project, $member, static function () use ($member, $role): void {
            $member->role = $role;
        }, Role::Owner === $role);
    }

    /** @throws Problem when nobody would be owner any more */
    public function remove(Project $project, Membership $member): void
    {
        $this->keepingAnOwner($project, $member, fn () => $this->entities->remove($member), false);
    }

    /** @param Closure(): void $change */
    private function keepingAnOwner(Project $project, Membership $member, Closure $change, bool $staysOwner): void
    {
        $this->entities->wrapInTransaction(function () use ($project, $member, $change, $staysOwner): void {
            // Two owners who leave at once must not both think that the other one stays.
            $this->entities->refresh($project, LockMode::PESSIMISTIC_WRITE);
            $owners = $this->entities->getRepository(Membership::class)->count(['project' => $project, 'role' => Role::Owner]);
            $staysOwner || Role::Owner !== $member->role || $owners > 1 || throw Refusal::lastOwner();
            $change();
        });
    }
}
