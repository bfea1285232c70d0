<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use Closure;
use Doctrine\DBAL\Connection;
use Throwable;
use Wattage\App\Database\Outage;
use Wattage\App\Entity\JobState;

/**
 * The right of one worker to do a job, for a while. Telling how far the job is renews it. Who does not tell for too long has lost it: then another
 * worker begins anew, and only the one that has the lease can end the job.
 */
final class Lease
{
    public const SECONDS = 30;
    private const SECONDS_BETWEEN = 0.4;

    private float $next = 0.0;
    private float $renewed;
    private float $done = 0.0;

    /**
     * @param string $worker this try's own name
     * @param ?Closure(): bool $isStopping whether the worker is asked to end
     */
    public function __construct(private readonly Connection $database, public readonly string $job, private readonly string $worker, private readonly ?Closure $isStopping = null)
    {
        $this->renewed = microtime(true);
    }

    /**
     * Tells how far the job is, now and then, and learns on the same occasion whether it is still wanted.
     *
     * @param float $done 0…1
     *
     * @throws Cancelled|Interrupted|LeaseLost
     */
    public function report(float $done): void
    {
        $this->done = $done;
        $this->alive();
    }

    /** Only that it goes on. @throws Cancelled|Interrupted|LeaseLost */
    public function alive(): void
    {
        $now = microtime(true);
        if ($now < $this->next) {
            return;
        }
        $this->next = $now + self::SECONDS_BETWEEN;
        null === $this->isStopping || !($this->isStopping)() || throw new Interrupted();
        try {
            $cancel = $this->database->fetchOne(
                "UPDATE job SET progress = ?, lease_until = now() + make_interval(secs => ?) WHERE id = ? AND worker = ? AND state = 'running' RETURNING cancel_requested::int",
                [$this->done, self::SECONDS, $this->job, $this->worker],
            );
        } catch (Throwable $error) {
            $this->endure($error, $now);

            return;
        }
        false !== $cancel || throw new LeaseLost();
        $this->renewed = $now;
        1 === $cancel && throw new Cancelled();
    }

    /**
     * Ends the job. Belongs into one transaction with what the job has made.
     *
     * @throws LeaseLost
     */
    public function end(JobState $state, ?string $problem = null): void
    {
        $ended = $this->database->executeStatement(
            "UPDATE job SET state = ?, progress = 1, problem = ?, ended_at = now(), lease_until = NULL, worker = NULL WHERE id = ? AND worker = ? AND state = 'running'",
            [$state->value, $problem, $this->job, $this->worker],
        );
        1 === $ended || throw new LeaseLost();
    }

    /** Lets another worker do the job, after a while. What broke off through no fault of its own is no try. */
    public function giveBack(int $afterSeconds = 0, bool $wasTry = false): void
    {
        $this->database->executeStatement(
            "UPDATE job SET state = 'waiting', worker = NULL, lease_until = NULL, not_before = now() + make_interval(secs => ?), tries = tries - ? WHERE id = ? AND worker = ? AND state = 'running'",
            [$afterSeconds, $wasTry ? 0 : 1, $this->job, $this->worker],
        );
    }

    /** While the database is away for a moment the work goes on, as long as nobody else can have taken it. */
    private function endure(Throwable $error, float $now): void
    {
        Outage::is($error) || throw $error;
        $now - $this->renewed < self::SECONDS || throw new LeaseLost();
        $this->database->close();
    }
}
