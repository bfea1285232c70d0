<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** A named set of files that somebody hands over again and again. */
#[ORM\Entity, ORM\Table(name: 'recipe')]
class Recipe
{
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    /**
     * @param string $pattern how its files are named
     * @param list<array<string, mixed>> $files as OrderDocument writes them
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly User $account,
        #[ORM\Column(length: 120)]
        public string $name,
        #[ORM\Column(length: 120)]
        public string $pattern,
        #[ORM\Column(type: Types::JSON)]
        public array $files,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
    }
}
