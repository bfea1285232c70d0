<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use Closure;
use Doctrine\DBAL\Connection;
use Wattage\App\Entity\Job;

/**
 * Jobs wait in their table until a worker takes a lease on one. Fair to everybody: first those of whom nothing is being done, short work before
 * long, then by age; and nobody has more than a few jobs in hand at once.
 */
final readonly class Queue
{
    /** Sound that is dealt with at once, as it were. Seconds. */
    public const SHORT_SECONDS = 600;
    public const MOST_TRIES = 3;
    private const DIED = 'This was begun %d times, and each time what did it broke down. It was given up. Try again, or with another file; if it happens once more, tell whoever runs this server.';

    /** One worker looks at a time: then the number of jobs in hand is true. */
    private const LOCK = 0x57_61_74_74;

    /** @param int $atOnce jobs of one account that are in hand at the same time */
    public function __construct(private Connection $database, private int $atOnce)
    {
    }

    /**
     * @param bool $onlyShort leaves long work to others, so that there is always somebody for short work
     * @param ?Closure(): bool $isStopping whether the worker is asked to end
     */
    public function take(bool $onlyShort = false, ?Closure $isStopping = null): ?Lease
    {
        $worker = bin2hex(random_bytes(8));
        $job = $this->database->transactional(function () use ($worker, $onlyShort): mixed {
            $this->database->fetchOne('SELECT pg_advisory_xact_lock(?)', [self::LOCK]);
            $this->giveUp();

            return $this->database->fetchOne(
                "UPDATE job SET state = 'running', worker = :worker, tries = tries + 1, started_at = now(), lease_until = now() + make_interval(secs => :lease) WHERE id = (
                    SELECT j.id FROM job j
                    LEFT JOIN (SELECT account_id, count(*) AS number FROM job WHERE state = 'running' AND lease_until >= now() GROUP BY account_id) hand ON hand.account_id = j.account_id
                    WHERE (j.state = 'waiting' OR (j.state = 'running' AND j.lease_until < now()))
                        AND (j.not_before IS NULL OR j.not_before <= now())
                        AND (j.seconds <= :short OR NOT :onlyShort)
                        AND COALESCE(hand.number, 0) < :atOnce
                    ORDER BY COALESCE(hand.number, 0), j.seconds > :short, j.created_at, j.id
                    LIMIT 1 FOR UPDATE OF j
                ) RETURNING id",
                ['worker' => $worker, 'lease' => Lease::SECONDS, 'short' => self::SHORT_SECONDS, 'onlyShort' => $onlyShort, 'atOnce' => $this->atOnce],
                ['onlyShort' => 'boolean'],
            );
        });

        return \is_string($job) ? new Lease($this->database, $job, $worker, $isStopping) : null;
    }

    /** A lease on one job, whatever waits before it. */
    public function claim(Job $job): Lease
    {
        $worker = bin2hex(random_bytes(8));
        $this->database->executeStatement("UPDATE job SET state = 'running', worker = ?, tries = 1, started_at = now(), lease_until = now() + make_interval(secs => ?) WHERE id = ?", [$worker, Lease::SECONDS, (string) $job->id]);

        return new Lease($this->database, (string) $job->id, $worker);
    }

    /** What waits is over at once; what is in hand ends as soon as its worker notices. */
    public function cancel(Job $job): void
    {
        $this->database->executeStatement(
            "UPDATE job SET cancel_requested = TRUE, ended_at = CASE state WHEN 'waiting' THEN now() ELSE ended_at END, state = CASE state WHEN 'waiting' THEN 'cancelled' ELSE state END WHERE id = ? AND state IN ('waiting', 'running')",
            [(string) $job->id],
        );
    }

    /** Whether a worker has a job in hand. */
    public function isRunning(string $job): bool
    {
        return false !== $this->database->fetchOne("SELECT 1 FROM job WHERE id::text = ? AND state = 'running' AND lease_until >= now()", [$job]);
    }

    /** What its workers died of so often is not tried for ever. */
    private function giveUp(): void
    {
        $given = $this->database->fetchFirstColumn(
            "UPDATE job SET state = 'failed', progress = 1, problem = ?, ended_at = now(), worker = NULL, lease_until = NULL
             WHERE state = 'running' AND lease_until < now() AND tries >= ? AND NOT cancel_requested RETURNING id",
            [\sprintf(self::DIED, self::MOST_TRIES), self::MOST_TRIES],
        );
        foreach ($given as $job) {
            $this->database->executeStatement("UPDATE source SET state = 'refused', problem = (SELECT problem FROM job WHERE id = :job) WHERE job_id = :job AND state = 'analysing'", ['job' => $job]);
            $this->database->executeStatement("UPDATE source SET picture = 'failed' WHERE picture_job_id = ? AND picture = 'making'", [$job]);
        }
    }
}
