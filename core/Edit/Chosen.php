<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Wire;

/** Keyframes of one level wire that an edit works on. */
final readonly class Chosen
{
    /** @param non-empty-list<int> $keyframes their source positions */
    public function __construct(public Wire $wire, public array $keyframes)
    {
    }
}
