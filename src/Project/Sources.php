<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\JobState;
use Wattage\App\Entity\Project;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\App\Entity\User;
use Wattage\App\Media\MediaStore;
use Wattage\App\Media\Quotas;
use Wattage\App\Media\Refused;
use Wattage\App\Media\Uploads;
use Wattage\App\Storage\MissingFile;
use Wattage\App\Storage\NoRoom;
use Wattage\App\Storage\Store;
use Wattage\Core\Timeline\Name;

/** Bringing files in: the upload piece by piece, then the analysis by a worker; with ways to stop and to try again. */
final readonly class Sources
{
    public const MAX_BYTES = 64 * 1024 ** 3;

    public function __construct(
        private EntityManagerInterface $entities,
        private Uploads $uploads,
        private Store $files,
        private MediaStore $store,
        private Quotas $quotas,
    ) {
    }

    /**
     * @param string $name as the browser calls the file; path parts are dropped
     *
     * @throws Refused|NoRoom|\Wattage\Core\Problem
     */
    public function announce(Project $project, string $name, int $size): Source
    {
        $base = Name::check((string) preg_replace('~^.*[/\\\\]~s', '', $name));
        if (0 === $size) {
            throw Refused::empty($base);
        }
        $this->quotas->file($project, $base, $size);
        $free = $this->files->freeBytes();
        null === $free || $size < $free || throw NoRoom::tooLittle("“{$base}”", 'disk of the media store', $size, $free);
        $source = new Source($project, $base, $size);
        $this->entities->persist($source);
        $this->entities->flush();

        return $source;
    }

    /**
     * Takes the next bytes of an upload. With the last ones, the analysis begins. Bytes that are here already are taken as well: their answer was lost.
     *
     * @param int<0, max> $offset must be what was received so far, or less to send a piece again
     *
     * @throws NoRoom
     * @throws NotFoundHttpException when somebody stops the upload meanwhile
     */
    public function receive(Source $source, User $by, int $offset, string $bytes): void
    {
        $end = $offset + \strlen($bytes);
        if (SourceState::Uploading !== $source->state && $end <= $source->received) {
            return;
        }
        if (SourceState::Uploading !== $source->state || $offset > $source->received || $end > $source->size || '' === $bytes) {
            throw new ConflictHttpException(\sprintf('“%s” goes on at byte %d of %d. Send from there.', $source->name, $source->received, $source->size));
        }
        try {
            $this->uploads->add($source->id, $offset, $bytes, $source->received);
        } catch (MissingFile) {
            throw self::removed($source);
        }
        $this->entities->wrapInTransaction(function () use ($source, $by, $end): void {
            // Others may send the same piece at this moment: only one of them is the last. Or they stop the upload.
            $this->entities->refresh($source, LockMode::PESSIMISTIC_WRITE);
            if (0 === $this->entities->getRepository(Source::class)->count(['id' => $source->id])) {
                $this->uploads->clear($source->id);
                throw self::removed($source);
            }
            if (SourceState::Uploading === $source->state) {
                $source->received = $end;
                $end < $source->size || $this->analyse($source, $by);
            }
        });
    }

    /** Tries a refused source once more, from the bytes that were sent. */
    public function retry(Source $source, User $by): void
    {
        if (SourceState::Refused !== $source->state || !$this->uploads->isWhole($source->id, $source->size)) {
            throw new ConflictHttpException("“{$source->name}” cannot be tried again. Send the file again instead.");
        }
        $this->analyse($source, $by);
        $this->entities->flush();
    }

    /** Stops an upload or an analysis, or removes a source that no clip uses in any state. */
    public function remove(Source $source): void
    {
        $this->entities->wrapInTransaction(function () use ($source): void {
            // Whoever places it at this moment is waited for, or finds it gone.
            $this->entities->refresh($source->project, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($source, LockMode::PESSIMISTIC_WRITE);
            $job = $source->job;
            if (SourceState::Analysing === $source->state && null !== $job) {
                $this->entities->refresh($job, LockMode::PESSIMISTIC_WRITE);
                $job->cancelRequested = true;
                if (JobState::Running === $job->state) {
                    return; // the worker notices and cleans up
                }
                $job->state = JobState::Cancelled;
            }
            SourceState::Ready === $source->state && $this->refuseIfEverUsed($source);
            $this->entities->remove($source);
        });
        if ($this->entities->contains($source)) {
            return;
        }
        $this->uploads->clear($source->id);
        // Files go with the last source that sounds from them.
        0 === $this->entities->getRepository(Source::class)->count(['media' => $source->media]) && $this->store->deleteMedia($source->media);
    }

    private static function removed(Source $source): NotFoundHttpException
    {
        return new NotFoundHttpException("“{$source->name}” was removed while it was being sent. Send it again if it is still wanted.");
    }

    private function analyse(Source $source, User $by): void
    {
        $source->problem = null;
        $source->state = SourceState::Analysing;
        $source->job = new Job(JobKind::Ingest, $by, $source->seconds());
        $this->entities->persist($source->job);
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
