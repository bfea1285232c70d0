<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use Doctrine\ORM\Mapping as ORM;
use LogicException;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;

#[ORM\Entity, ORM\Table(name: 'account')]
class User implements UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    private string $password = '';

    /** @param string $email lower case */
    public function __construct(
        #[ORM\Column(unique: true)]
        public readonly string $email,
        #[ORM\Column]
        public readonly string $name,
    ) {
        $this->id = Uuid::v7();
    }

    public function getUserIdentifier(): string
    {
        return '' === $this->email ? throw new LogicException('A user has an e-mail address.') : $this->email;
    }

    public function getRoles(): array
    {
        return ['ROLE_USER'];
    }

    public function getPassword(): string
    {
        return $this->password;
    }

    public function setPassword(string $hash): void
    {
        $this->password = $hash;
    }

    public function eraseCredentials(): void
    {
    }
}
