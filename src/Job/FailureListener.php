<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use Doctrine\DBAL\Connection;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Messenger\Event\WorkerMessageFailedEvent;

/** When a job has failed for good, for a reason nobody foresaw, says so where people see it. */
#[AsEventListener]
final readonly class FailureListener
{
    private const MESSAGE = 'Something went wrong on our side. Try again; if it happens once more, tell whoever runs this server.';

    public function __construct(private Connection $database)
    {
    }

    public function __invoke(WorkerMessageFailedEvent $event): void
    {
        $message = $event->getEnvelope()->getMessage();
        if ($event->willRetry() || !$message instanceof RunJob) {
            return;
        }
        $this->database->executeStatement("UPDATE job SET state = 'failed', problem = ? WHERE id = ?", [self::MESSAGE, $message->job]);
        $this->database->executeStatement("UPDATE source SET state = 'refused', problem = ? WHERE job_id = ? AND state <> 'ready'", [self::MESSAGE, $message->job]);
    }
}
