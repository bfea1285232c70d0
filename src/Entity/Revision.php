<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** One state of a mix, reached from its parent by one edit. Never changed, never removed. Project\Revisions makes and reads them. */
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
     * @param ?int $parent number of the revision it came from, smaller than its own; NULL for the first
     * @param ?string $mix the whole state as mix JSON, with its own format version; NULL where only the difference is kept. Text here, because
     *                     only the core takes it apart
     * @param ?string $difference from the parent's state, as JSON; NULL where the whole is kept
     * @param int $sinceWhole bytes of all differences since the last whole state; 0 with one
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
        #[ORM\Column(type: Types::TEXT, nullable: true, columnDefinition: 'JSON COMPRESSION lz4')]
        public readonly ?string $mix,
        #[ORM\Column(type: Types::TEXT, nullable: true, columnDefinition: 'JSON COMPRESSION lz4')]
        public readonly ?string $difference = null,
        #[ORM\Column]
        public readonly int $sinceWhole = 0,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
    }
}
