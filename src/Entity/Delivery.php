<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Wattage\Core\Handover\FileOrder;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\OrderDocument;

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
     * What came of it; NULL before it is finished.
     *
     * @var ?array<string, mixed>
     */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    public ?array $outcome = null;

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
     * @param array<string, mixed> $document what it is to be, as OrderDocument writes it
     * @param Uuid $handover the same for all that was started together
     * @param string $recipe its name; empty for none
     * @param string $pattern how it is named
     * @param array<string, string> $tags by name
     * @param int $seconds how long it is
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column]
        public readonly int $revision,
        #[ORM\Column(type: Types::JSON)]
        public readonly array $document,
        #[ORM\Column(type: 'uuid')]
        public readonly Uuid $handover,
        #[ORM\Column(length: 120)]
        public readonly string $recipe,
        #[ORM\Column(length: 120)]
        public readonly string $pattern,
        #[ORM\Column(type: Types::JSON)]
        public readonly array $tags,
        User $by,
        int $seconds,
    ) {
        $this->id = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
        $this->job = new Job(JobKind::Render, $by, $seconds);
    }

    public function order(): FileOrder
    {
        return OrderDocument::read(Fields::of($this->document));
    }

    public function path(): string
    {
        return "deliveries/{$this->id}.{$this->order()->format->ending()}";
    }
}
