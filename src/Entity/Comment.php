<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Wattage\Core\Timeline\Anchor;

/** What somebody says about a moment. No part of the mix: undo does not take it away, and viewers may say it. */
#[ORM\Entity, ORM\Table(name: 'comment')]
class Comment
{
    public const MAX_LETTERS = 2000;
    public const MOST_IN_A_PROJECT = 5000;

    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    /** NULL until somebody has ticked it off. */
    #[ORM\Column(nullable: true)]
    public ?DateTimeImmutable $doneAt = null;

    #[ORM\ManyToOne]
    public ?User $doneBy = null;

    /** What sounded there: source and source sample; NULL where nothing did. */
    #[ORM\Column(length: 64, nullable: true)]
    private ?string $source;

    #[ORM\Column(type: Types::BIGINT, nullable: true)]
    private ?int $position;

    /** @param int $at timeline sample when it was said */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
        public readonly User $author,
        #[ORM\Column(type: Types::BIGINT)]
        public readonly int $at,
        ?Anchor $anchor,
        #[ORM\Column(type: Types::TEXT)]
        public string $text,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
        $this->source = $anchor?->source;
        $this->position = $anchor?->position;
    }

    public function anchor(): ?Anchor
    {
        return null === $this->source || null === $this->position ? null : new Anchor($this->source, $this->position);
    }
}
