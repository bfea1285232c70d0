<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;

/** Sets the faders of several tracks at once, as when they are linked and one is moved. */
final readonly class SetFaders implements Edit
{
    /** @param non-empty-array<string, Decibels> $faders by track */
    public function __construct(private array $faders)
    {
    }

    public function label(Mix $before): string
    {
        return 1 === \count($this->faders)
            ? (new SetFader((string) array_key_first($this->faders), array_values($this->faders)[0]))->label($before)
            : \sprintf('Set %d faders', \count($this->faders));
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        foreach ($this->faders as $id => $fader) {
            $after = (new SetFader((string) $id, $fader))->apply($after);
        }

        return $after;
    }
}
