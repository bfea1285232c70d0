<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use LogicException;
use Symfony\Component\Security\Core\User\EquatableInterface;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;

#[ORM\Entity, ORM\Table(name: 'account')]
class User implements EquatableInterface, UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    private string $password = '';

    /** Counts up with every new password and every signing out everywhere: sessions of an earlier one have ended. */
    #[ORM\Column]
    public int $generation = 0;

    /** Whether it was given the recipes to begin with. */
    #[ORM\Column]
    public bool $hasHadRecipes = false;

    /**
     * What it keeps beside the usual targets: LUFS and dBTP.
     *
     * @var list<array{name: string, loudness: float, truePeak: float}>
     */
    #[ORM\Column(type: Types::JSON)]
    public array $targets = [];

    /** @param string $email lower case */
    public function __construct(
        #[ORM\Column(unique: true)]
        public readonly string $email,
        #[ORM\Column]
        public string $name,
    ) {
        $this->id = Uuid::v7();
    }

    public function is(self $other): bool
    {
        return $this->id->equals($other->id);
    }

    public function getUserIdentifier(): string
    {
        return '' === $this->email ? throw new LogicException('A user has an e-mail address.') : $this->email;
    }

    public function isEqualTo(UserInterface $user): bool
    {
        return $user instanceof self && $user->is($this) && $user->generation === $this->generation;
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
