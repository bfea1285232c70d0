<?php

declare(strict_types=1);

namespace Wattage\App\Work;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Archive\ArchiveTaken;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\Source;
use Wattage\App\Intake\Ingest;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Lease;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Uploads;
use Wattage\App\Project\Pictures;

/** Takes in a file that was sent. */
final readonly class IngestJob implements Work
{
    public function __construct(private EntityManagerInterface $entities, private Ingest $ingest, private Pictures $pictures, private Uploads $uploads, private MediaStore $store, private ArchiveTaken $archives)
    {
    }

    public function run(Job $job, Lease $lease): Closure
    {
        $source = $this->source($job) ?? throw new Cancelled();
        $taken = $this->ingest->run($source, $job, $lease);

        return function () use ($source, $taken, $job): void {
            foreach ($taken->incoming as $one) {
                $one->becomeReady();
                $this->entities->persist($one->source);
                $this->pictures->request($one->source);
            }[] === $taken->incoming && $this->entities->remove($source);
            if (null !== $taken->contents && null !== $job->account) {
                $this->archives->take($source->project, $job->account, $taken->contents, $taken->ids);
            }
        };
    }

    public function tidy(Job $job): void
    {
        $source = $this->source($job);
        null === $source || $this->uploads->clear($source->id);
    }

    /** A source nobody wants any more leaves nothing behind. */
    public function cancel(Job $job): void
    {
        $source = $this->source($job);
        if (null !== $source) {
            $this->discard($job);
            $this->uploads->clear($source->id);
            $this->entities->remove($source);
        }
    }

    public function fail(Job $job, string $problem): void
    {
        $this->source($job)?->refuse($problem);
    }

    /** What was sent stays, for another try. */
    public function discard(Job $job): void
    {
        $source = $this->source($job);
        null === $source || $this->store->deleteMedia($source->media);
    }

    private function source(Job $job): ?Source
    {
        return $this->entities->getRepository(Source::class)->findOneBy(['job' => $job]);
    }
}
