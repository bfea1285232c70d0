<?php

declare(strict_types=1);

namespace Wattage\App\Work;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\Persistence\ManagerRegistry;
use Psr\Log\LoggerInterface;
use Throwable;
use Wattage\App\Database\Outage;
use Wattage\App\Job\Lease;
use Wattage\App\Job\Queue;
use Wattage\App\Media\Spool;
use Wattage\App\Upkeep\Reaper;

/** Takes jobs one after the other until it has done enough, is asked to end, or cannot go on; something outside starts it again. */
final class Worker
{
    private const IDLE_MICROSECONDS = 200_000;
    private const MOST_MEMORY = 200_000_000;

    private bool $stopping = false;

    public function __construct(
        private readonly Queue $queue,
        private readonly JobRunner $runner,
        private readonly EntityManagerInterface $entities,
        private readonly ManagerRegistry $managers,
        private readonly Connection $database,
        private readonly Spool $spool,
        private readonly Reaper $reaper,
        private readonly LoggerInterface $logger,
    ) {
    }

    public function run(bool $onlyShort, int $jobs, int $seconds, bool $untilIdle): void
    {
        pcntl_async_signals(true);
        foreach ([\SIGTERM, \SIGINT, \SIGQUIT] as $signal) {
            pcntl_signal($signal, function (): void {
                $this->stopping = true;
            });
        }
        $this->spool->sweep($this->queue->isRunning(...));
        $end = microtime(true) + $seconds;
        while ($jobs > 0 && !$this->stopping && microtime(true) < $end && memory_get_usage() < self::MOST_MEMORY) {
            if ($this->next($onlyShort)) {
                --$jobs;
            } elseif ($untilIdle) {
                return;
            } else {
                $this->reaper->runIfDue();
                usleep(self::IDLE_MICROSECONDS);
            }
        }
    }

    /** @return bool whether there was something to do */
    private function next(bool $onlyShort): bool
    {
        $lease = null;
        try {
            $lease = $this->queue->take($onlyShort, fn (): bool => $this->stopping);
            null === $lease || $this->runner->run($lease);
        } catch (Throwable $error) {
            $this->recover($error, $lease);
        }
        // Whatever went wrong in a transaction has closed it.
        $this->entities->isOpen() || $this->managers->resetManager();

        return null !== $lease;
    }

    /** When the database is away, waits until it is back, and lets somebody do again what was broken off by that. */
    private function recover(Throwable $error, ?Lease $lease): void
    {
        Outage::is($error) || throw $error;
        $this->logger->warning('The database is away: {message}', ['message' => $error->getMessage()]);
        while (!$this->stopping) {
            usleep(self::IDLE_MICROSECONDS);
            try {
                $this->database->close();
                null === $lease ? $this->database->fetchOne('SELECT 1') : $lease->giveBack();

                return;
            } catch (Throwable $still) {
                Outage::is($still) || throw $still;
            }
        }
    }
}
