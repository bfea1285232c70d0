<?php

declare(strict_types=1);

namespace Wattage\App\Upkeep;

use Doctrine\DBAL\Connection;
use Wattage\App\Storage\Store;

/** Figures by which somebody who runs the servers sees whether all is well. */
final readonly class Monitor
{
    private const TOLD_HOURS = 24;

    public function __construct(private Connection $database, private Store $store)
    {
    }

    /** @return array<string, array{string, float|int}> what it is, and its value, by name */
    public function figures(): array
    {
        $jobs = $this->database->fetchAssociative(
            "SELECT count(*) FILTER (WHERE state = 'waiting') AS waiting, count(*) FILTER (WHERE state = 'running') AS running,
                count(*) FILTER (WHERE state = 'running' AND lease_until < now()) AS lost,
                count(*) FILTER (WHERE state = 'failed' AND ended_at > now() - make_interval(hours => :hours)) AS failed,
                COALESCE(extract(epoch FROM now() - min(created_at) FILTER (WHERE state = 'waiting')), 0) AS oldest_waiting,
                COALESCE(extract(epoch FROM now() - min(started_at) FILTER (WHERE state = 'running')), 0) AS oldest_running
             FROM job",
            ['hours' => self::TOLD_HOURS],
        );
        $number = static fn (string $name): float => \is_array($jobs) && is_numeric($jobs[$name]) ? (float) $jobs[$name] : 0.0;
        $free = $this->store->freeBytes();

        return [
            'wattage_jobs_waiting' => ['Jobs that wait for a worker', (int) $number('waiting')],
            'wattage_jobs_running' => ['Jobs that a worker has in hand', (int) $number('running')],
            'wattage_jobs_lost' => ['Jobs whose worker has been silent for too long', (int) $number('lost')],
            'wattage_jobs_failed_day' => ['Jobs that came to nothing within a day', (int) $number('failed')],
            'wattage_job_waiting_seconds' => ['How long the oldest job has waited', round($number('oldest_waiting'), 1)],
            'wattage_job_running_seconds' => ['How long the oldest job has been in hand', round($number('oldest_running'), 1)],
            ...(null === $free ? [] : ['wattage_store_free_bytes' => ['Room on the disk of the media store', $free]]),
        ];
    }
}
