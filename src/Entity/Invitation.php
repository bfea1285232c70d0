<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** A place in a project that is kept for an e-mail address. The link that takes it up works once. */
#[ORM\Entity, ORM\Table(name: 'invitation')]
class Invitation
{
    private const VALID = '+14 days';

    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    #[ORM\Column]
    public DateTimeImmutable $expiresAt;

    #[ORM\Column(nullable: true)]
    public ?DateTimeImmutable $acceptedAt = null;

    /**
     * @param string $email lower case
     * @param string $tokenHash SHA-256 of the token in the link
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $invitedBy,
        #[ORM\Column(length: 180)]
        public readonly string $email,
        #[ORM\Column(length: 10)]
        public readonly Role $role,
        #[ORM\Column(length: 64, unique: true)]
        public readonly string $tokenHash,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
        $this->expiresAt = new DateTimeImmutable(self::VALID);
    }

    public function isExpired(): bool
    {
        return $this->expiresAt < new DateTimeImmutable();
    }
}
