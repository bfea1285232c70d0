<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use RuntimeException;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Source;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Spool;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\OutFile;
use Wattage\Core\Render\WavRender;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Timeline\Mix;

/** Renders a delivery to its file; it can be seen only once it is whole. */
final readonly class DeliveryRenderer
{
    public function __construct(private EntityManagerInterface $entities, private History $history, private MediaStore $store, private Spool $spool)
    {
    }

    /**
     * @return Closure(): void makes it known
     *
     * @throws NoRoom|Cancelled|Interrupted|LeaseLost
     */
    public function run(Delivery $delivery, Lease $lease): Closure
    {
        $work = $this->spool->workDirectory($delivery->job->id);
        try {
            $mix = $this->history->mixAt($delivery->project, $delivery->revision);
            $this->spool->needs($delivery->format->bytesFor($mix->length()), 'this file');
            $clipping = $this->render($mix, $delivery, $work, $lease);
            $file = "{$work}/delivery.wav";
            $size = (int) filesize($file);
            $sha256 = self::digest($file, $lease);
            $this->store->put($delivery->path(), $file, $sha256, $lease->alive(...));
        } finally {
            $this->spool->remove($work);
        }

        return static function () use ($delivery, $size, $sha256, $clipping): void {
            $delivery->clipping = self::told($clipping);
            $delivery->size = $size;
            $delivery->sha256 = $sha256;
        };
    }

    public function discard(Delivery $delivery): void
    {
        $this->store->delete($delivery->path());
    }

    private function render(Mix $mix, Delivery $delivery, string $work, Lease $lease): Clipping
    {
        $file = $this->spool->file($work, 'delivery.wav', 'the file');
        $render = new WavRender($mix, $this->sounds($mix), $delivery->format);
        try {
            foreach ($render->writeTo($file->stream()) as $done) {
                $lease->report(0.98 * $done);
            }
        } catch (NotWritten) {
            $file->full();
        }
        $file->close();

        return $render->clipping;
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

    /** @return array<string, \Wattage\Core\Render\PcmSource> */
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
