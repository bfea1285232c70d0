<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Source;

/** Has the small picture of a source made, once its sound is ready. */
final readonly class Pictures
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** Once the entities are flushed, a worker will take it. */
    public function request(Source $source): void
    {
        if (PictureState::Making !== $source->picture || null !== $source->pictureJob) {
            return;
        }
        $source->pictureJob = new Job(JobKind::Picture, $source->job?->account, $source->seconds());
        $this->entities->persist($source->pictureJob);
    }
}
