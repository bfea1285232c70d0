<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Signal\Routing;

/** One way of a clip's sound into the mix: how loud at each moment, and from which channel to which. An opened clip has one per channel. */
final readonly class Part
{
    /** @param non-empty-list<Stretch> $stretches in source time, covering the heard part of the clip */
    public function __construct(public Routing $routing, public array $stretches)
    {
    }
}
