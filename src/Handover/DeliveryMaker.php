<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use RuntimeException;
use Wattage\App\Archive\ArchiveMaker;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Source;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Spool;
use Wattage\App\Project\History;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Handover\FileFormat;
use Wattage\Core\Handover\Tags;
use Wattage\Core\Handover\TamedPlaces;
use Wattage\Core\Problem;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Timeline\Mix;

/** Makes the file of a delivery; it can be seen only once it is whole. */
final readonly class DeliveryMaker
{
    public function __construct(private EntityManagerInterface $entities, private History $history, private MediaStore $store, private Spool $spool, private FileMaker $files, private GuardPlaces $places, private ArchiveMaker $archives, private Covers $covers)
    {
    }

    /**
     * @return Closure(): void makes it known
     *
     * @throws NoRoom|Cancelled|Interrupted|LeaseLost|Problem
     */
    public function run(Delivery $delivery, Lease $lease): Closure
    {
        $order = $delivery->order();
        $mix = $this->history->mixAt($delivery->project, $delivery->revision);
        $work = $this->spool->workDirectory($delivery->job->id);
        if (FileFormat::Archive === $order->format) {
            return $this->archive($delivery, $work, $lease);
        }
        try {
            $span = $order->excerpt->span($mix);
            $this->spool->needs(FileMaker::needs($order, $span), 'this file');
            $tags = $delivery->tags + ['title' => $delivery->project->name];
            $about = new About(new Tags($tags['title'], $tags['programme'] ?? '', $tags['episode'] ?? '', $tags['author'] ?? ''), FileName::of($delivery, $mix), substr(str_replace('-', '', (string) $delivery->id), 0, 32), $delivery->createdAt, $this->covers->fetch($delivery->project, "{$work}/cover.jpg"));
            $made = $this->files->make($order, $mix, $this->sounds($mix), $this->originals($work, $lease), $work, $about, static fn (float $done) => $lease->report(0.98 * $done));
            $known = $this->stored($delivery, $made->file, $lease);
            $outcome = $this->outcome($delivery, $mix, $made);
        } finally {
            $this->spool->remove($work);
        }

        return static function () use ($delivery, $known, $made, $outcome): void {
            $delivery->clipping = self::told($made->clipping);
            $delivery->outcome = $outcome;
            $known();
        };
    }

    /** @return Closure(): void */
    private function archive(Delivery $delivery, string $work, Lease $lease): Closure
    {
        try {
            return $this->stored($delivery, $this->archives->make($delivery->project, $delivery->revision, $work, $lease), $lease);
        } finally {
            $this->spool->remove($work);
        }
    }

    /** @return Closure(): void makes it known */
    private function stored(Delivery $delivery, string $file, Lease $lease): Closure
    {
        $size = (int) filesize($file);
        $sha256 = self::digest($file, $lease);
        $this->store->put($delivery->path(), $file, $sha256, $lease->alive(...));

        return static function () use ($delivery, $size, $sha256): void {
            $delivery->size = $size;
            $delivery->sha256 = $sha256;
        };
    }

    public function discard(Delivery $delivery): void
    {
        $this->store->delete($delivery->path());
    }

    /** @return array<string, mixed> as {@see Outcome} says it */
    private function outcome(Delivery $delivery, Mix $mix, Made $made): array
    {
        $order = $delivery->order();
        $places = $this->places->of($delivery->project, $mix, $order, $made->acts);

        return Outcome::of($made->measured, $order->rate, $made->gain, $order->target($mix->aim), $made->isMet, $made->acts, $places, TamedPlaces::edit($mix, $places));
    }

    private static function digest(string $file, Lease $lease): string
    {
        $in = fopen($file, 'r') ?: throw new RuntimeException('A work file is gone.');
        $hash = hash_init('sha256');
        while (0 < hash_update_stream($hash, $in, OutFile::PIECE)) {
            $lease->alive();
        }
        fclose($in);

        return hash_final($hash);
    }

    /** @return array{samples: int, peak: ?float, places: list<array{int, int, float}>} */
    private static function told(Clipping $clipping): array
    {
        $dbfs = static fn (float $sample): float => round(20.0 * log10($sample), 2);

        return [
            'samples' => $clipping->samples,
            'peak' => $clipping->highest > 0.0 ? $dbfs($clipping->highest) : null,
            'places' => array_map(static fn (array $place): array => [$place[0], $place[1], $dbfs($place[2])], $clipping->places),
        ];
    }

    /** @return Closure(string): string each is fetched once */
    private function originals(string $work, Lease $lease): Closure
    {
        $fetched = [];

        return function (string $id) use ($work, $lease, &$fetched): string {
            if (!isset($fetched[$id])) {
                $source = $this->entities->find(Source::class, $id) ?? throw new RuntimeException("Source {$id} is gone.");
                $this->spool->needs($source->size, $source->name);
                $part = 'original-'.\count($fetched);
                $this->store->fetch($source, 'original', $this->spool->file($work, $part, $source->name), $lease->alive(...));
                $fetched[$id] = "{$work}/{$part}";
            }

            return $fetched[$id];
        };
    }

    /** @return array<string, PcmSource> */
    private function sounds(Mix $mix): array
    {
        $sounds = [];
        foreach (array_keys($mix->sources) as $id) {
            $source = $this->entities->find(Source::class, $id) ?? throw new RuntimeException("Source {$id} is gone.");
            $sounds[$id] = $this->store->sound($source);
        }

        return $sounds;
    }
}
