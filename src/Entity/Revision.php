<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** One state of a mix, reached from its parent by one edit. Never changed, never removed. */
#[ORM\Entity, ORM\Table(name: 'revision')]
#[ORM\UniqueConstraint(columns: ['project_id', 'number']), ORM\Index(columns: ['project_id', 'parent'])]
class Revision
{
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    /**
     * @param int $number counts up within the project, from 1
     * @param ?int $parent number of the revision it came from; NULL for the first
     * @param string $mix mix JSON, with its own format version; text here, because only the core takes it apart
     * @param ?array<array-key, mixed> $edit the edit that made it; NULL for the first
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column]
        public readonly int $number,
        #[ORM\Column(nullable: true)]
        public readonly ?int $parent,
        #[ORM\Column(length: 400)]
        public readonly string $label,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        public readonly User $author,
        #[ORM\Column(type: Types::TEXT, columnDefinition: 'JSON COMPRESSION lz4 NOT NULL')]
        public readonly string $mix,
        #[ORM\Column(type: Types::JSON, nullable: true, options: ['jsonb' => true])]
        public readonly ?array $edit,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
    }
}
