<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PlacedWire;
use Wattage\Core\Timeline\Wire;

/** The common body of edits that change the level over a range of time, on one wire or on several. */
abstract readonly class RangeEdit implements Edit
{
    /**
     * @param non-empty-list<Wire> $wires those whose clips the range does not touch are left alone
     * @param Span $range timeline samples
     */
    public function __construct(protected array $wires, protected Span $range)
    {
    }

    final public function apply(Mix $before): Mix
    {
        $touched = false;
        $after = $before;
        foreach ($this->wires as $wire) {
            $placed = $wire->in($after);
            $range = $this->range->shifted($placed->ahead());
            if ($placed->bounds()->meets($range)) {
                $touched = true;
                $curve = $this->changed($placed, $range);
                $after = $curve == $placed->curve() ? $after : $placed->with($curve);
            }
        }

        return $touched ? $after : throw InvalidEdit::notOverAnyClip();
    }

    /** @param Span $range in the curve's own time */
    abstract protected function changed(PlacedWire $wire, Span $range): Curve;

    protected function where(Mix $mix): string
    {
        $what = 1 === \count($this->wires) ? $this->wires[0]->in($mix)->name() : \sprintf('%d clips', \count($this->wires));

        return $what.'%s, '.Naming::span($mix, $this->range);
    }
}
