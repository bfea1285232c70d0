<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use RuntimeException;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Source;
use Wattage\App\Job\Progress;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Spool;
use Wattage\Core\Render\WavRender;
use Wattage\Core\Signal\Clipping;
use Wattage\Core\Timeline\Mix;

/** Renders a delivery to its file; it can be seen only once it is whole. */
final readonly class DeliveryRenderer
{
    public function __construct(private EntityManagerInterface $entities, private History $history, private MediaStore $store, private Spool $spool)
    {
    }

    /** @throws \Wattage\App\Job\Cancelled */
    public function run(Delivery $delivery, Progress $progress): void
    {
        $mix = $this->history->mixAt($delivery->project, $delivery->revision);
        $file = $this->spool->workDirectory($delivery->job->id).'/delivery.wav';
        $stream = fopen($file, 'w') ?: throw new RuntimeException('The work directory cannot be written.');
        $render = new WavRender($mix, $this->sounds($mix), $delivery->format);
        foreach ($render->writeTo($stream) as $done) {
            $progress->report($done);
        }
        fclose($stream);
        $size = filesize($file);
        $this->store->put($delivery->path(), $file);
        $delivery->clipping = self::told($render->clipping);
        $delivery->size = false === $size ? null : $size;
        $this->entities->flush();
        $this->spool->clear($delivery->job->id);
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
