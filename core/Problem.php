<?php

declare(strict_types=1);

namespace Wattage\Core;

use Throwable;

/** Every error the core raises on purpose: says what is wrong, what to do, and which field of the request it is about. */
interface Problem extends Throwable
{
    /** Name of the offending field, e.g. "gain" or "tracks[0].clips[2].in"; empty when it is about the whole. */
    public function field(): string;
}
