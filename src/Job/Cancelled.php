<?php

declare(strict_types=1);

namespace Wattage\App\Job;

use RuntimeException;

/** Somebody does not want this job any more. */
final class Cancelled extends RuntimeException
{
}
