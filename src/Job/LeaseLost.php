<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use RuntimeException;

/** Another worker has taken the job, or it has ended: what was done here counts for nothing. */
final class LeaseLost extends RuntimeException
{
}
