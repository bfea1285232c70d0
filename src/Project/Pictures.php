<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\PictureState;
use Wattage\App\Entity\Source;
use Wattage\App\Job\RunJob;

/** Has the small picture of a source made, once its sound is ready. */
final readonly class Pictures
{
    public function __construct(private EntityManagerInterface $entities, private MessageBusInterface $bus)
    {
    }

    public function request(Source $source): void
    {
        if (PictureState::Making !== $source->picture || null !== $source->pictureJob) {
            return;
        }
        $source->pictureJob = new Job(JobKind::Picture);
        $this->entities->persist($source->pictureJob);
        $this->entities->flush();
        $this->bus->dispatch(new RunJob((string) $source->pictureJob->id));
    }
}
