<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Signal\Routing;

/** One way of a clip's sound into the mix: how loud at each moment, and from which channel to which. An opened clip has one per channel. */
final readonly class Part
{
    /**
     * @param Decibels $gain of source and clip, all along
     * @param non-empty-list<Stretch> $stretches what is added to it over time, in source time, covering the heard part of the clip
     */
    public function __construct(public Routing $routing, public Decibels $gain, public array $stretches)
    {
    }

    /** @return non-empty-list<Stretch> gain and stretches in one */
    public function heard(): array
    {
        return array_map(fn (Stretch $stretch): Stretch => $stretch->raised($this->gain), $this->stretches);
    }
}
