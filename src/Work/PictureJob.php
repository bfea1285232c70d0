<?php

declare(strict_types=1);

namespace Wattage\App\Work;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Source;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Lease;
use Wattage\App\Media\PictureMaker;

/** Makes the small picture of a source. One that cannot be made is no reason to lose the sound: it is only said. */
final readonly class PictureJob implements Work
{
    public function __construct(private EntityManagerInterface $entities, private PictureMaker $pictures)
    {
    }

    public function run(Job $job, Lease $lease): Closure
    {
        $source = $this->source($job) ?? throw new Cancelled();
        $this->pictures->run($source, $job, $lease);

        return static function () use ($source): void {
            $source->picture = PictureState::Ready;
        };
    }

    public function tidy(Job $job): void
    {
    }

    public function cancel(Job $job): void
    {
        $this->fail($job, '');
    }

    public function fail(Job $job, string $problem): void
    {
        $source = $this->source($job);
        if (null !== $source) {
            $source->picture = PictureState::Failed;
        }
    }

    public function discard(Job $job): void
    {
    }

    private function source(Job $job): ?Source
    {
        return $this->entities->getRepository(Source::class)->findOneBy(['pictureJob' => $job]);
    }
}
