<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use Doctrine\DBAL\Connection;
use Wattage\App\Entity\Job;

/** Tells how far a job is, now and then, and learns on the same occasion whether it is still wanted. */
final class Progress
{
    private const SECONDS_BETWEEN = 0.4;

    private float $next = 0.0;

    public function __construct(private readonly Connection $database, private readonly Job $job)
    {
    }

    /**
     * @param float $done 0…1
     *
     * @throws Cancelled
     */
    public function report(float $done): void
    {
        $now = microtime(true);
        if ($now < $this->next) {
            return;
        }
        $this->next = $now + self::SECONDS_BETWEEN;
        $cancel = $this->database->fetchOne('UPDATE job SET progress = ? WHERE id = ? RETURNING cancel_requested', [$done, (string) $this->job->id]);
        if (true === $cancel) {
            throw new Cancelled();
        }
    }
}
