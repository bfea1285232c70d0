<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Effort;
use Wattage\Core\Timeline\Mix;

/** Several dips, each of its own range and depth, as one step: the fixes of several buried stretches. */
final readonly class Dips implements Edit
{
    public const MOST = 1000;

    /** @param non-empty-list<DipRange> $dips MOST at most */
    public function __construct(private array $dips)
    {
    }

    public function label(Mix $before): string
    {
        return 1 === \count($this->dips) ? $this->dips[0]->label($before) : \sprintf('Change %d ranges', \count($this->dips));
    }

    public function apply(Mix $before): Mix
    {
        // Each makes four keyframes that those after it go through.
        Effort::affordable(array_sum(array_map(static fn (DipRange $dip): int => $dip->effort($before), $this->dips)) + 2 * \count($this->dips) ** 2, 'dips');

        return array_reduce($this->dips, static fn (Mix $mix, DipRange $dip): Mix => $dip->apply($mix), $before);
    }
}
