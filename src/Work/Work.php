<?php

declare(strict_types=1);

namespace Wattage\App\Work;

use Closure;
use Wattage\App\Entity\Job;
use Wattage\App\Job\Cancelled;
use Wattage\App\Job\Interrupted;
use Wattage\App\Job\Lease;
use Wattage\App\Job\LeaseLost;
use Wattage\App\Media\Refused;
use Wattage\App\Storage\NoRoom;

/** What there is to be done in one kind of job. */
interface Work
{
    /**
     * Does the long part, of which nobody sees anything yet.
     *
     * @return Closure(): void makes it visible; called in the transaction that ends the job
     *
     * @throws Refused|NoRoom|Cancelled|Interrupted|LeaseLost
     */
    public function run(Job $job, Lease $lease): Closure;

    /** Once it is done for good. */
    public function tidy(Job $job): void;

    /** In the transaction that ends a job nobody wants any more. */
    public function cancel(Job $job): void;

    /** In the transaction that ends a job that came to nothing. */
    public function fail(Job $job, string $problem): void;

    /** Removes the files of a job that came to nothing, once that is certain. */
    public function discard(Job $job): void;
}
