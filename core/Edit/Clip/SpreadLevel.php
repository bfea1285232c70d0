<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Mix;

/** Spread: gives the gain of one clip to others. */
final readonly class SpreadLevel implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private string $from, private array $clips)
    {
    }

    public function label(Mix $before): string
    {
        $from = $before->clip($this->from);

        return "Spread {$from->gain->format()} of {$from->name} to ".Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return (new SetClipGain($this->clips, $before->clip($this->from)->gain))->apply($before);
    }
}
