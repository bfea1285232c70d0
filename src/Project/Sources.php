<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use DateTimeImmutable;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Messenger\MessageBusInterface;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Job\RunJob;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Refused;
use Wattage\App\Media\Spool;
use Wattage\Core\Timeline\Name;

/** Bringing files in: the upload piece by piece, then the analysis by a worker; with ways to stop and to try again. */
final readonly class Sources
{
    public const MAX_BYTES = 64 * 1024 ** 3;
    private const ABANDONED_AFTER = '-1 day';

    public function __construct(
        private EntityManagerInterface $entities,
        private MessageBusInterface $bus,
        private Spool $spool,
        private MediaStore $store,
    ) {
    }

    /**
     * @param string $name as the browser calls the file; path parts are dropped
     *
     * @throws Refused|\Wattage\Core\Problem
     */
    public function announce(Project $project, string $name, int $size): Source
    {
        $base = Name::check((string) preg_replace('~^.*[/\\\\]~s', '', $name));
        if (0 === $size) {
            throw Refused::empty($base);
        }
        $this->dropAbandoned($project);
        $source = new Source($project, $base, $size);
        $this->entities->persist($source);
        $this->entities->flush();

        return $source;
    }

    /**
     * Takes the next bytes of an upload. With the last ones, the analysis begins.
     *
     * @param int<0, max> $offset must be what was received so far, or less to send a piece again
     */
    public function receive(Source $source, int $offset, string $bytes): void
    {
        if (SourceState::Uploading !== $source->state || $offset > $source->received || $offset + \strlen($bytes) > $source->size) {
            throw new ConflictHttpException(\sprintf('“%s” goes on at byte %d of %d. Send from there.', $source->name, $source->received, $source->size));
        }
        $this->spool->write($source->id, $offset, $bytes);
        $source->received = $offset + \strlen($bytes);
        $source->received === $source->size ? $this->analyse($source) : $this->entities->flush();
    }

    /** Tries a refused source once more, from the bytes that were sent. */
    public function retry(Source $source): void
    {
        if (SourceState::Refused !== $source->state || !is_file($this->spool->upload($source->id))) {
            throw new ConflictHttpException("“{$source->name}” cannot be tried again. Send the file again instead.");
        }
        $this->analyse($source);
    }

    /** Stops an upload or an analysis, or removes a source that no clip uses in the present mix. */
    public function remove(Source $source): void
    {
        if (SourceState::Analysing === $source->state && null !== $source->job && !$source->job->state->isOver()) {
            $source->job->cancelRequested = true;
            if (JobState::Running === $source->job->state) {
                $this->entities->flush();

                return; // the worker notices and cleans up
            }
            $source->job->state = JobState::Cancelled;
        }
        if (SourceState::Ready === $source->state) {
            $this->refuseIfEverUsed($source);
        }
        $this->spool->clear($source->id);
        $this->entities->remove($source);
        $this->entities->flush();
        // Files go with the last source that sounds from them.
        0 === $this->entities->getRepository(Source::class)->count(['media' => $source->media]) && $this->store->deleteMedia($source->media);
    }

    /** Uploads that broke off and were never taken up again leave nothing behind for longer than a day. */
    private function dropAbandoned(Project $project): void
    {
        $abandoned = $this->entities->createQuery('SELECT s FROM '.Source::class.' s WHERE s.project = :project AND s.state = :uploading AND s.createdAt < :before')
            ->setParameter('project', $project->id, 'uuid')
            ->setParameter('uploading', SourceState::Uploading)
            ->setParameter('before', new DateTimeImmutable(self::ABANDONED_AFTER));
        /** @var Source $source */
        foreach ((array) $abandoned->getResult() as $source) {
            $this->spool->clear($source->id);
            $this->entities->remove($source);
        }
    }

    private function analyse(Source $source): void
    {
        $source->problem = null;
        $source->state = SourceState::Analysing;
        $source->job = new Job(JobKind::Ingest);
        $this->entities->persist($source->job);
        $this->entities->flush();
        $this->bus->dispatch(new RunJob((string) $source->job->id));
    }

    /** Undo may bring back any state, so a source stays as long as a revision knows it. */
    private function refuseIfEverUsed(Source $source): void
    {
        $used = $this->entities->getConnection()->fetchOne(
            'SELECT 1 FROM revision WHERE project_id = ? AND (position(? IN mix::text) > 0 OR position(? IN difference::text) > 0) LIMIT 1',
            [(string) $source->project->id, (string) $source->id, (string) $source->id],
        );
        if (false !== $used) {
            throw new ConflictHttpException("“{$source->name}” is part of this project’s history, so it stays: undo could bring its clips back.");
        }
    }
}
