<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Gives each of several clips a gain of its own: how \Wattage\Core\Loudness\EvenUp brings them to one level. */
final readonly class SetClipGains implements Edit
{
    /** @param non-empty-array<string, Decibels> $gains by clip */
    public function __construct(private array $gains)
    {
    }

    public function label(Mix $before): string
    {
        return 'Even up '.Naming::clips($before, array_map(strval(...), array_keys($this->gains)));
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips(array_map(strval(...), array_keys($this->gains)), fn (Clip $clip): Clip => $clip->withGain($this->gains[$clip->id]));
    }
}
