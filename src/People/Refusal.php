<?php

declare(strict_types=1);

namespace Wattage\App\People;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

/** What cannot be done with people and their places, and why. */
final class Refusal extends DomainException implements Problem
{
    use NamesField;

    public static function notAnAddress(): self
    {
        return new self('This is not an e-mail address. Check it for typing errors.', 'email');
    }

    public static function oneself(): self
    {
        return new self('This is your own address, and you are here already.', 'email');
    }

    public static function memberAlready(string $name): self
    {
        return new self("{$name} is a member already. Change the role in the list instead.", 'email');
    }

    public static function tooManyInvitations(int $most): self
    {
        return new self("{$most} invitations wait already. Withdraw some first.", 'email');
    }

    public static function tooManyComments(int $most): self
    {
        return new self("This project has {$most} comments already. Remove some first.", 'text');
    }

    public static function lastOwner(): self
    {
        return new self('A project needs an owner. Make somebody else an owner first, or delete the project.', 'role');
    }

    public static function password(int $least, int $most): self
    {
        return new self("A password has {$least} to {$most} characters.", 'password');
    }

    public static function wrongPassword(): self
    {
        return new self('This is not your present password.', 'current');
    }

    public static function comment(int $most): self
    {
        return new self("A comment has 1 to {$most} letters.", 'text');
    }

    public static function moment(): self
    {
        return new self('There is no such moment in a programme.', 'at');
    }
}
