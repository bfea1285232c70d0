<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use DateTimeImmutable;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Wattage\App\Entity\Delivery;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\Source;
use Wattage\App\Media\Ingest;
use Wattage\App\Media\PictureMaker;
use Wattage\App\Media\Refused;
use Wattage\App\Media\Spool;
use Wattage\App\Project\DeliveryRenderer;
use Wattage\App\Project\Pictures;

/** Does one job. May be handed the same one again after a worker died: it starts over, and ends once. */
#[AsMessageHandler]
final readonly class JobRunner
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $database,
        private Ingest $ingest,
        private PictureMaker $pictures,
        private DeliveryRenderer $renderer,
        private Spool $spool,
        private Pictures $pictureJobs,
    ) {
    }

    public function __invoke(RunJob $message): void
    {
        $this->entities->clear();
        $job = $this->entities->find(Job::class, $message->job);
        if (null === $job || $job->state->isOver()) {
            return;
        }
        try {
            $job->cancelRequested && throw new Cancelled();
            $job->state = JobState::Running;
            $job->startedAt = new DateTimeImmutable();
            $this->entities->flush();
            $this->run($job, new Progress($this->database, $job));
            $this->end($job, JobState::Done);
        } catch (Cancelled) {
            $this->cancel($job);
        } catch (Refused $reason) {
            JobKind::Ingest === $job->kind && $this->sourceOf($job)?->refuse($reason->getMessage());
            $this->spool->clear($job->id);
            $this->end($job, JobState::Failed, $reason->getMessage());
        }
    }

    private function run(Job $job, Progress $progress): void
    {
        $source = $this->sourceOf($job);
        if (JobKind::Ingest === $job->kind && null !== $source) {
            $this->ingest->run($source, $job, $progress);
            $this->pictureJobs->request($source);
        }
        if (JobKind::Picture === $job->kind && null !== $source) {
            $this->pictures->run($source, $job, $progress);
        }
        if (JobKind::Render !== $job->kind) {
            return;
        }
        $delivery = $this->entities->getRepository(Delivery::class)->findOneBy(['job' => $job]);
        null !== $delivery && $this->renderer->run($delivery, $progress);
    }

    private function end(Job $job, JobState $state, ?string $problem = null): void
    {
        $job->state = $state;
        $job->progress = 1.0;
        $job->problem = $problem;
        $this->entities->flush();
    }

    /** A source nobody wants any more leaves nothing behind; a delivery is kept as a cancelled line. */
    private function cancel(Job $job): void
    {
        $this->spool->clear($job->id);
        $source = $this->sourceOf($job);
        if (null !== $source && JobKind::Ingest === $job->kind) {
            $this->spool->clear($source->id);
            $this->entities->remove($source);
        }
        $this->end($job, JobState::Cancelled);
    }

    private function sourceOf(Job $job): ?Source
    {
        return $this->entities->getRepository(Source::class)->findOneBy([JobKind::Picture === $job->kind ? 'pictureJob' : 'job' => $job]);
    }
}
