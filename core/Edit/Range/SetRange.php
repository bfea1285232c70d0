<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\RangeSet;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PlacedWire;
use Wattage\Core\Timeline\Wire;

/** Brings the wires over a range to one level, or to silence, with ramps. */
final readonly class SetRange extends RangeEdit
{
    /**
     * @param non-empty-list<Wire> $wires
     * @param Span $range timeline samples
     * @param Decibels $level of the wire as it is shown: gain and curve together
     * @param int $ramp samples
     */
    public function __construct(array $wires, Span $range, private Decibels $level, private int $ramp, private bool $inside)
    {
        parent::__construct($wires, $range);
    }

    public function label(Mix $before): string
    {
        return $this->level->isSilence() ? 'Silence '.\sprintf($this->where($before), '') : 'Set '.\sprintf($this->where($before), " to {$this->level->format()}");
    }

    protected function changed(PlacedWire $wire, Span $range): Curve
    {
        $gain = $wire->gain();
        $gain->isSilence() && !$this->level->isSilence() && throw InvalidEdit::clipIsSilent($wire->name());
        $level = $this->level->isSilence() ? $this->level : Decibels::of($this->level->db - $gain->db);

        return (new RangeSet($level, $this->ramp, $this->inside))->of($wire->curve(), $range, $wire->bounds());
    }
}
