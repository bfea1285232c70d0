<?php

declare(strict_types=1);

namespace Wattage\App\Work;

use Closure;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Log\LoggerInterface;
use Throwable;
use Wattage\App\Database\Outage;
use Wattage\App\Entity\Job;
use Wattage\App\Entity\JobKind;
use Wattage\App\Entity\JobState;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Job\Queue;
use Wattage\App\Media\Refused;
use Wattage\App\Storage\NoRoom;
use Wattage\Core\Problem;

/**
 * Does the job that a lease is on. What it makes becomes visible together with its end, and only if the lease still holds: a job that two workers
 * had in hand ends once.
 */
final readonly class JobRunner
{
    private const UNFORESEEN = 'Something went wrong on our side. Try again; if it happens once more, tell whoever runs this server.';
    private const SECONDS_BEFORE_NEXT_TRY = 2;

    public function __construct(private EntityManagerInterface $entities, private IngestJob $ingests, private PictureJob $pictures, private RenderJob $renders, private ManagerRegistry $managers, private LoggerInterface $logger)
    {
    }

    /** @throws Throwable when the worker cannot go on */
    public function run(Lease $lease): void
    {
        $this->entities->clear();
        $job = $this->entities->find(Job::class, $lease->job);
        if (null === $job) {
            return;
        }
        $work = $this->of($job->kind);
        try {
            $job->cancelRequested && throw new Cancelled();
            $this->end($lease, JobState::Done, $work->run($job, $lease));
            $work->tidy($job);
        } catch (Cancelled) {
            $this->end($lease, JobState::Cancelled, static fn () => $work->cancel($job));
            $work->discard($job);
        } catch (Refused|NoRoom|Problem $reason) {
            $this->end($lease, JobState::Failed, static fn () => $work->fail($job, $reason->getMessage()), $reason->getMessage());
            $work->discard($job);
        } catch (LeaseLost) {
            $this->logger->warning('A worker lost its lease on a job', ['job' => $lease->job]);
        } catch (Interrupted) {
            $lease->giveBack();
        } catch (Throwable $error) {
            $this->unforeseen($job, $lease, $work, $error);
        }
    }

    private function of(JobKind $kind): Work
    {
        return match ($kind) {
            JobKind::Ingest => $this->ingests,
            JobKind::Picture => $this->pictures,
            JobKind::Render => $this->renders,
        };
    }

    /** @param Closure(): void $change */
    private function end(Lease $lease, JobState $state, Closure $change, ?string $problem = null): void
    {
        // What went wrong while the end was made known has closed it.
        $this->entities->isOpen() || $this->managers->resetManager();
        $this->entities->wrapInTransaction(static function () use ($lease, $state, $change, $problem): void {
            $lease->end($state, $problem);
            $change();
        });
    }

    /** Another try may do better; if not, it is said where people see it. */
    private function unforeseen(Job $job, Lease $lease, Work $work, Throwable $error): void
    {
        Outage::is($error) && throw $error;
        $this->logger->error('A job broke down: {message}', ['message' => $error->getMessage(), 'job' => $lease->job, 'exception' => $error]);
        if ($job->tries < Queue::MOST_TRIES) {
            $lease->giveBack(self::SECONDS_BEFORE_NEXT_TRY * $job->tries, wasTry: true);

            return;
        }
        $this->end($lease, JobState::Failed, static fn () => $work->fail($job, self::UNFORESEEN), self::UNFORESEEN);
        $work->discard($job);
    }
}
