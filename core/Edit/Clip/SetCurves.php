<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Gives each of several clips a curve of its own: what \Wattage\Core\Speech\Steady has worked out. */
final readonly class SetCurves implements Edit
{
    /** @param non-empty-array<string, Curve> $curves by clip */
    public function __construct(private array $curves)
    {
    }

    public function label(Mix $before): string
    {
        return 'Steady '.Naming::clips($before, array_map(strval(...), array_keys($this->curves)));
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips(array_map(strval(...), array_keys($this->curves)), fn (Clip $clip): Clip => $clip->withCurve($this->curves[$clip->id]));
    }
}
