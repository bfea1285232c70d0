<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** A programme that people work on together. Deleting only hides it, so that there is a way back. */
#[ORM\Entity, ORM\Table(name: 'project')]
class Project
{
    /** Not readonly, like createdAt: History reads the record anew once it holds the lock, and Doctrine writes what it reads. */
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    /** Number of the revision that is the present state. */
    #[ORM\Column]
    public int $head = 0;

    /** Who made the present state the present. */
    #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'SET NULL')]
    public ?User $movedBy = null;

    /** How, in words, where it was not by an edit: undo, redo, going to a state. */
    #[ORM\Column(length: 450, nullable: true)]
    public ?string $moved = null;

    /** Highest revision number given out. */
    #[ORM\Column]
    public int $lastRevision = 0;

    /** Counts what happens to the comments, so that screens see when to ask for them again. */
    #[ORM\Column]
    public int $commentsVersion = 0;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    #[ORM\Column]
    public DateTimeImmutable $changedAt;

    /** NULL while it is not deleted. */
    #[ORM\Column(nullable: true)]
    public ?DateTimeImmutable $deletedAt = null;

    /** @var Collection<int, Membership> */
    #[ORM\OneToMany(targetEntity: Membership::class, mappedBy: 'project', cascade: ['persist'])]
    private Collection $members;

    public function __construct(
        #[ORM\Column(length: 200)]
        public string $name,
        User $owner,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = $this->changedAt = new DateTimeImmutable();
        $this->members = new ArrayCollection();
        $this->share($owner, Role::Owner);
    }

    public function moveHead(int $revision, User $by, ?string $how = null): void
    {
        $this->head = $revision;
        $this->movedBy = $by;
        $this->moved = $how;
        $this->changedAt = new DateTimeImmutable();
    }

    public function share(User $user, Role $role): void
    {
        foreach ($this->members as $member) {
            if ($member->user->id->equals($user->id)) {
                $member->role = $role;

                return;
            }
        }
        $this->members->add(new Membership($this, $user, $role));
    }

    /** @return list<string> names of all who work on it, in the order of the alphabet */
    public function people(): array
    {
        $names = array_map(static fn (Membership $member): string => $member->user->name, $this->members->toArray());
        sort($names);

        return $names;
    }

    public function roleOf(User $user): ?Role
    {
        foreach ($this->members as $member) {
            if ($member->user->id->equals($user->id)) {
                return $member->role;
            }
        }

        return null;
    }
}
