<?php

declare(strict_types=1);

namespace Wattage\App\Archive;

use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Snapshot;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Spool;
use Wattage\App\Project\Revisions;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Captions\CaptionWriter;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Time\Span;
use ZipArchive;

/**
 * Puts a whole project into one ZIP file, in open formats: its mix, its sources as they were sent, its captions and its snapshots. docs/formats.md
 * says what is in it; {@see ArchiveFile} reads it again.
 */
final readonly class ArchiveMaker
{
    private const MOST_SNAPSHOTS = 200;
    private const DISK = 'work disk of this server';

    /** How much is done when all sources are at hand, and when they are in the file. */
    private const FETCHED = 0.6;
    private const WRITTEN = 0.95;

    public function __construct(private EntityManagerInterface $entities, private Revisions $revisions, private MediaStore $store, private Spool $spool)
    {
    }

    /**
     * @return string path of the file
     *
     * @throws NoRoom|Cancelled|Interrupted|LeaseLost
     */
    public function make(Project $project, int $revision, string $work, Lease $lease): string
    {
        $sources = $this->entities->getRepository(Source::class)->findBy(['project' => $project, 'state' => SourceState::Ready], ['id' => 'ASC']);
        // Each is here twice for a moment: as it was fetched, and within.
        $this->spool->needs(2 * array_sum(array_map(static fn (Source $source): int => $source->size, $sources)), $project->name);
        $zip = new ZipArchive();
        $file = "{$work}/archive.zip";
        true === $zip->open($file, ZipArchive::CREATE | ZipArchive::EXCL) || throw NoRoom::full("“{$project->name}”", self::DISK);
        $listed = [];
        foreach ($sources as $n => $source) {
            $lease->report(self::FETCHED * $n / \count($sources));
            $this->store->fetch($source, 'original', $this->spool->file($work, "media-{$n}", $source->name), $lease->alive(...));
            $inside = \sprintf('media/%03d %s', $n + 1, strtr($source->name, '/\\:', '---'));
            $zip->addFile("{$work}/media-{$n}", $inside);
            // Sound and pictures do not get smaller, and what is stored plainly can be read out of a damaged file.
            $zip->setCompressionName($inside, ZipArchive::CM_STORE);
            $listed[] = ['id' => (string) $source->id, 'name' => $source->name, 'file' => $inside, 'sha256' => $source->sha256];
        }
        $mix = $this->revisions->mix($this->revisions->numbered($project, $revision));
        $zip->addFromString('mix.json', MixDocument::encode($mix));
        [] === $mix->captions || $zip->addFromString('captions.vtt', CaptionWriter::vtt($mix->captions, Span::of(0, max(1, $mix->length())), $mix->rate));
        $snapshots = $this->snapshots($project, $work, $zip);
        $zip->addFromString('project.json', (string) json_encode(['format' => ArchiveFile::FORMAT, 'version' => 1, 'name' => $project->name, 'sources' => $listed, 'snapshots' => $snapshots], \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR));
        $this->close($zip, $project, $lease);

        return $file;
    }

    /** All of it is written now. Whoever cancels it meanwhile is heard: nothing can be thrown through the library that writes. */
    private function close(ZipArchive $zip, Project $project, Lease $lease): void
    {
        $stopped = null;
        $zip->registerProgressCallback(0.01, static function (float $done) use ($lease, &$stopped): void {
            try {
                $lease->report(self::FETCHED + (self::WRITTEN - self::FETCHED) * $done);
            } catch (Cancelled|Interrupted|LeaseLost $reason) {
                $stopped = $reason;
            }
        });
        $zip->registerCancelCallback(static function () use (&$stopped): int {
            return null === $stopped ? 0 : -1;
        });
        $isWhole = @$zip->close();
        null === $stopped || throw $stopped;
        $isWhole || throw NoRoom::full("“{$project->name}”", self::DISK);
    }

    /** @return list<array{name: string, file: string, createdAt: string}> the oldest first; of very many the newest, as much as is read again */
    private function snapshots(Project $project, string $work, ZipArchive $zip): array
    {
        $kept = $listed = [];
        $bytes = 0;
        foreach ($this->entities->getRepository(Snapshot::class)->findBy(['project' => $project], ['createdAt' => 'DESC', 'id' => 'DESC'], self::MOST_SNAPSHOTS) as $n => $snapshot) {
            $mix = $this->revisions->document($this->revisions->numbered($project, $snapshot->revision));
            $bytes += \strlen($mix);
            if ($bytes > ArchiveFile::MOST_MIXES) {
                break;
            }
            // By way of a file: what is added as text is kept in memory until the end.
            $file = $this->spool->file($work, "snapshot-{$n}", $snapshot->name);
            $file->write($mix);
            $file->close();
            $kept[] = [$snapshot, "{$work}/snapshot-{$n}"];
        }
        foreach (array_reverse($kept) as $n => [$snapshot, $file]) {
            $inside = \sprintf('snapshots/%03d.json', $n + 1);
            $zip->addFile($file, $inside);
            $listed[] = ['name' => $snapshot->name, 'file' => $inside, 'createdAt' => $snapshot->createdAt->format(\DATE_ATOM)];
        }

        return $listed;
    }
}
