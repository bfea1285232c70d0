<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** A link by which somebody who has forgotten a password sets another; it works once, for an hour. */
#[ORM\Entity, ORM\Table(name: 'password_reset')]
class PasswordReset
{
    private const VALID = '+1 hour';

    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    public DateTimeImmutable $expiresAt;

    #[ORM\Column(nullable: true)]
    public ?DateTimeImmutable $usedAt = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $account,
        #[ORM\Column(length: 64, unique: true)]
        public readonly string $tokenHash,
    ) {
        $this->id = Uuid::v7();
        $this->expiresAt = new DateTimeImmutable(self::VALID);
    }

    public function isOver(): bool
    {
        return null !== $this->usedAt || $this->expiresAt < new DateTimeImmutable();
    }
}
