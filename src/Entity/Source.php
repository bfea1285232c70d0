<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

use DateTimeImmutable;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source as MixSource;

/** A file brought in: as it was sent, and, once measured, the sound it holds. */
#[ORM\Entity, ORM\Table(name: 'source'), ORM\Index(columns: ['project_id', 'sha256']), ORM\Index(columns: ['media'])]
class Source
{
    /** Between the name of a file and that of a channel. */
    private const CHANNEL = ' · ';

    #[ORM\Id, ORM\Column(type: 'uuid')]
    public Uuid $id;

    #[ORM\Column(length: 10)]
    public SourceState $state = SourceState::Uploading;

    /** Bytes received so far. */
    #[ORM\Column(type: Types::BIGINT)]
    public int $received = 0;

    /** Why it was refused, as a sentence for people; NULL unless refused. */
    #[ORM\Column(type: Types::TEXT, nullable: true)]
    public ?string $problem = null;

    /** Of the file as sent, hexadecimal; NULL before analysis. */
    #[ORM\Column(length: 64, nullable: true)]
    public ?string $sha256 = null;

    /** Container and codec as ffprobe names them; NULL before analysis. */
    #[ORM\Column(length: 80, nullable: true)]
    public ?string $format = null;

    /** Samples per second in the file; NULL before analysis. */
    #[ORM\Column(nullable: true)]
    public ?int $fileRate = null;

    /** 1 or 2; NULL before analysis. */
    #[ORM\Column(nullable: true)]
    public ?int $channels = null;

    /** Bits per sample of the internal PCM, 16 or 24; NULL before analysis. */
    #[ORM\Column(nullable: true)]
    public ?int $bits = null;

    /** Length in samples at the mix rate; NULL before analysis. */
    #[ORM\Column(type: Types::BIGINT, nullable: true)]
    public ?int $frames = null;

    /** Highest sample, dBFS; NULL before analysis, −200 for silence. */
    #[ORM\Column(nullable: true)]
    public ?float $peakDbfs = null;

    /** Average level, dBFS, pauses left out; NULL before analysis, and for silence. */
    #[ORM\Column(nullable: true)]
    public ?float $averageDbfs = null;

    /**
     * What it measures without any gain, as it is heard on a track; NULL before analysis.
     *
     * @var ?array{integrated: ?float, range: float, maxShortTerm: ?float} LUFS, LU, LUFS
     */
    #[ORM\Column(type: Types::JSON, nullable: true)]
    public ?array $loudness = null;

    /** What was wrong with the file although it could be read, as a sentence for people; NULL when nothing was. */
    #[ORM\Column(type: Types::TEXT, nullable: true)]
    public ?string $warning = null;

    /** Of the sound as stored, hexadecimal; NULL before analysis. */
    #[ORM\Column(length: 32, nullable: true)]
    public ?string $soundDigest = null;

    /** When it was recorded, samples at the mix rate since midnight, where the file says so. */
    #[ORM\Column(type: Types::BIGINT, nullable: true)]
    public ?int $beganAt = null;

    /**
     * Its cue points or chapters.
     *
     * @var list<array{int, string}> samples at the mix rate and name, in the order of time
     */
    #[ORM\Column(type: Types::JSON)]
    public array $marks = [];

    #[ORM\Column(length: 10)]
    public PictureState $picture = PictureState::None;

    /** Whose files it sounds from: its own, or those of the source it is a copy of. */
    #[ORM\Column(type: 'uuid')]
    public Uuid $media;

    #[ORM\Column]
    public DateTimeImmutable $createdAt;

    #[ORM\OneToOne, ORM\JoinColumn(onDelete: 'SET NULL')]
    public ?Job $job = null;

    /** Makes the small picture; NULL where there is none to make. */
    #[ORM\OneToOne, ORM\JoinColumn(onDelete: 'SET NULL')]
    public ?Job $pictureJob = null;

    /**
     * @param string $name file name as sent, without path
     * @param int $size bytes announced
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 200)]
        public string $name,
        #[ORM\Column(type: Types::BIGINT)]
        public int $size,
    ) {
        $this->id = $this->media = Uuid::v7();
        $this->createdAt = new DateTimeImmutable();
    }

    /** What was sent may be more than one source: channels of a file, files of an archive. */
    public function becomeFile(string $name, int $size): void
    {
        $this->name = $name;
        $this->size = $size;
    }

    /** The file that it came in: with others, where it is one channel of it. */
    public function fileName(): string
    {
        return explode(self::CHANNEL, $this->name)[0];
    }

    /** What a channel of a file is called. */
    public static function channelName(string $file, string $track): string
    {
        return mb_substr($file, 0, 150).self::CHANNEL.mb_substr($track, 0, 45);
    }

    /** The same recording in another project, from the same files. */
    public function copiedTo(Project $project): self
    {
        $copy = new self($project, $this->name, $this->size);
        foreach (['media', 'state', 'received', 'sha256', 'format', 'fileRate', 'channels', 'bits', 'frames', 'peakDbfs', 'averageDbfs', 'loudness', 'warning', 'soundDigest', 'picture', 'beganAt', 'marks'] as $field) {
            $copy->{$field} = $this->{$field};
        }

        return $copy;
    }

    public function refuse(string $problem): void
    {
        $this->problem = $problem;
        $this->state = SourceState::Refused;
    }

    /** How long it is: exactly once it is ready, before that about what so many bytes of plain PCM are. */
    public function seconds(): int
    {
        return intdiv($this->frames ?? intdiv($this->size, 4), Mix::DEFAULT_RATE);
    }

    /** As the mix sees it; null before it is ready. */
    public function toMixSource(): ?MixSource
    {
        return SourceState::Ready === $this->state && null !== $this->frames && null !== $this->channels
            ? new MixSource((string) $this->id, $this->name, $this->frames, $this->channels, Decibels::unchanged(), null, PictureState::None !== $this->picture)
            : null;
    }
}
