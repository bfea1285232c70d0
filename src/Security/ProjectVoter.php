<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Authorization\Voter\Vote;
use Symfony\Component\Security\Core\Authorization\Voter\Voter;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Role;
use Wattage\App\Entity\User;

/**
 * Decides by the role a person has in a project. The attributes are the names of the roles.
 *
 * @extends Voter<string, Project>
 */
final class ProjectVoter extends Voter
{
    protected function supports(string $attribute, mixed $subject): bool
    {
        return $subject instanceof Project && null !== Role::tryFrom($attribute);
    }

    protected function voteOnAttribute(string $attribute, mixed $subject, TokenInterface $token, ?Vote $vote = null): bool
    {
        $user = $token->getUser();

        return $user instanceof User && true === $subject->roleOf($user)?->includes(Role::from($attribute));
    }
}
