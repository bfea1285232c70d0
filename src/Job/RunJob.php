<?php

declare(strict_types=1);

namespace Wattage\App\Job;

/** Asks a worker to do a job. */
final readonly class RunJob
{
    public function __construct(public string $job)
    {
    }
}
