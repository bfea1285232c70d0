<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\RangeSet;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PlacedWire;
use Wattage\Core\Timeline\Wire;

/** Takes the curve out of a range: 0 dB there, so that the clip has its plain gain, with ramps. */
final readonly class ResetRange extends RangeEdit
{
    /**
     * @param non-empty-list<Wire> $wires
     * @param Span $range timeline samples
     * @param int $ramp samples
     */
    public function __construct(array $wires, Span $range, private int $ramp, private bool $inside)
    {
        parent::__construct($wires, $range);
    }

    public function label(Mix $before): string
    {
        return 'Reset '.\sprintf($this->where($before), '');
    }

    protected function changed(PlacedWire $wire, Span $range): Curve
    {
        $curve = $wire->curve();

        return $curve->isFlat() ? $curve : (new RangeSet(Decibels::unchanged(), $this->ramp, $this->inside))->of($curve, $range, $wire->bounds());
    }
}
