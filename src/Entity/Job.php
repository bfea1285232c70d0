<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** Work that a worker does behind the scenes, with its progress. */
#[ORM\Entity, ORM\Table(name: 'job')]
class Job
{
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column(length: 10)]
    public JobState $state = JobState::Waiting;

    /** 0…1. */
    #[ORM\Column]
    public float $progress = 0.0;

    /** Set from outside; the worker looks at it now and then. */
    #[ORM\Column]
    public bool $cancelRequested = false;

    /** Why it failed, for people; NULL unless failed. */
    #[ORM\Column(type: Types::TEXT, nullable: true)]
    public ?string $problem = null;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    #[ORM\Column(nullable: true)]
    public ?DateTimeImmutable $startedAt = null;

    public function __construct(
        #[ORM\Column(length: 10)]
        public readonly JobKind $kind,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
    }
}
