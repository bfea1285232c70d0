<?php

declare(strict_types=1);

namespace Wattage\App\People;

use DateTimeImmutable;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\GoneHttpException;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Wattage\App\Entity\PasswordReset;
use Wattage\App\Entity\User;
use Wattage\Core\Problem;

/** Setting, changing and resetting passwords. A new password signs everybody out who used the old one. */
final readonly class Passwords
{
    public const LEAST = 8;
    public const MOST = 200;

    public function __construct(private EntityManagerInterface $entities, private UserPasswordHasherInterface $hasher, private Letters $letters)
    {
    }

    /** @throws Problem */
    public function set(User $user, string $password): void
    {
        mb_strlen($password) >= self::LEAST && mb_strlen($password) <= self::MOST || throw Refusal::password(self::LEAST, self::MOST);
        $user->setPassword($this->hasher->hashPassword($user, $password));
        ++$user->generation;
    }

    /** @throws Problem */
    public function change(User $user, string $current, string $password): void
    {
        $this->hasher->isPasswordValid($user, $current) || throw Refusal::wrongPassword();
        $this->set($user, $password);
        $this->entities->flush();
    }

    /** Sends a link where there is such an account; whether there is, nobody learns. */
    public function forgotten(string $email): void
    {
        $user = $this->entities->getRepository(User::class)->findOneBy(['email' => mb_strtolower(trim($email))]);
        if (null !== $user) {
            $link = SecretLink::fresh();
            $this->entities->persist(new PasswordReset($user, $link->hash()));
            $this->entities->flush();
            $this->letters->passwordReset($user, $link);
        }
    }

    /** @throws Problem|GoneHttpException */
    public function reset(string $token, string $password): User
    {
        $reset = $this->entities->getRepository(PasswordReset::class)->findOneBy(['tokenHash' => SecretLink::hashOf($token)]);
        if (null === $reset || $reset->isOver()) {
            throw new GoneHttpException('This link was used already, or is too old. Ask for another one.');
        }
        $this->set($reset->account, $password);
        // All links sent so far end with it.
        foreach ($this->entities->getRepository(PasswordReset::class)->findBy(['account' => $reset->account, 'usedAt' => null]) as $link) {
            $link->usedAt = new DateTimeImmutable();
        }
        $this->entities->flush();

        return $reset->account;
    }
}
