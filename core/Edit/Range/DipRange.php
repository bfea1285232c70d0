<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\RangeChange;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PlacedWire;
use Wattage\Core\Timeline\Wire;

/** Lowers or lifts a range by a difference, with ramps. */
final readonly class DipRange extends RangeEdit
{
    /**
     * @param non-empty-list<Wire> $wires
     * @param Span $range timeline samples
     * @param Decibels $by finite
     * @param int $ramp samples
     */
    public function __construct(array $wires, Span $range, private Decibels $by, private int $ramp, private bool $inside)
    {
        parent::__construct($wires, $range);
    }

    public function label(Mix $before): string
    {
        $verb = $this->by->db < 0 ? 'Dip' : 'Lift';

        return "{$verb} ".\sprintf($this->where($before), ' by '.Naming::amount($this->by->db).' dB');
    }

    protected function changed(PlacedWire $wire, Span $range): Curve
    {
        return (new RangeChange($this->by->db, $this->ramp, $this->inside))->of($wire->curve(), $range, $wire->bounds());
    }
}
