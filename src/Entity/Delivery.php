<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Wattage\Core\Signal\SampleFormat;

/** A rendered file to hand over. */
#[ORM\Entity, ORM\Table(name: 'delivery')]
class Delivery
{
    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    /** Bytes of the finished file; NULL before. */
    #[ORM\Column(type: Types::BIGINT, nullable: true)]
    public ?int $size = null;

    /**
     * What passes full scale in it; NULL before it is finished.
     *
     * @var ?array{samples: int, peak: ?float, places: list<array{int, int, float}>} peak in dBFS; places from and to in timeline samples, with
     *                                                                               the peak there in dBFS
     */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    public ?array $clipping = null;

    /** Of the finished file, hexadecimal; NULL before. */
    #[ORM\Column(length: 64, nullable: true)]
    public ?string $sha256 = null;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    #[ORM\OneToOne(cascade: ['persist']), ORM\JoinColumn(nullable: false)]
    public readonly Job $job;

    /**
     * @param int $revision number of the revision rendered
     * @param int $seconds how long it is
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column]
        public readonly int $revision,
        #[ORM\Column(length: 10)]
        public readonly SampleFormat $format,
        User $by,
        int $seconds,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
        $this->job = new Job(JobKind::Render, $by, $seconds);
    }

    public function path(): string
    {
        return "deliveries/{$this->id}.wav";
    }
}
