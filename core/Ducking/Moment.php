<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

use Wattage\Core\Time\Span;

/** A stretch that a rule has looked at. */
final readonly class Moment
{
    /** @param Span $span timeline samples of the speech itself */
    public function __construct(public Span $span, public Heard $heard)
    {
    }
}
