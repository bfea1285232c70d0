<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Source;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;

/** Gives several sources a rough level at once: how \Wattage\Core\Loudness\SourceAdvice prepares them. */
final readonly class SetSourceGains implements Edit
{
    /** @param non-empty-list<SetSourceGain> $gains */
    public function __construct(private array $gains)
    {
    }

    public function label(Mix $before): string
    {
        return 1 === \count($this->gains) ? $this->gains[0]->label($before) : \sprintf('Set the gain of %d sources', \count($this->gains));
    }

    public function apply(Mix $before): Mix
    {
        return array_reduce($this->gains, static fn (Mix $mix, SetSourceGain $gain): Mix => $gain->apply($mix), $before);
    }
}
