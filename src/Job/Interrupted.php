<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use RuntimeException;

/** The worker is asked to end; another will do the job. */
final class Interrupted extends RuntimeException
{
}
