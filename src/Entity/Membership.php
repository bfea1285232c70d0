<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use Doctrine\ORM\Mapping as ORM;

#[ORM\Entity, ORM\Table(name: 'membership')]
class Membership
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne(inversedBy: 'members'), ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $user,
        #[ORM\Column(length: 10)]
        public Role $role,
    ) {
    }
}
