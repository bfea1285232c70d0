<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** Work that a worker does behind the scenes, with its progress. Who has it in hand and until when, Job\Queue and Job\Lease keep in the same row. */
#[ORM\Entity, ORM\Table(name: 'job'), ORM\Index(columns: ['state', 'lease_until'])]
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

    #[ORM\Column(nullable: true)]
    public ?DateTimeImmutable $endedAt = null;

    /** How often it was begun. */
    #[ORM\Column(type: Types::SMALLINT)]
    public int $tries = 0;

    /**
     * @param ?User $account who asked for it
     * @param int $seconds of sound that it goes through, about
     */
    public function __construct(
        #[ORM\Column(length: 10)]
        public readonly JobKind $kind,
        #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'SET NULL')]
        public readonly ?User $account,
        #[ORM\Column]
        public int $seconds,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
    }
}
