<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Effort;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PlacedWire;
use Wattage\Core\Timeline\Track;
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
        $touched = array_filter($this->wires, function (Wire $wire) use ($before): bool {
            $placed = $wire->in($before);

            return $placed->bounds()->meets($this->range->shifted($placed->ahead()));
        });
        [] !== $touched || throw InvalidEdit::notOverAnyClip();
        Effort::affordable(\count($touched) * max(0, ...array_values(array_map(static fn (Track $track): int => \count($track->clips), $before->tracks))), 'clips');
        $after = $before;
        foreach ($touched as $wire) {
            $placed = $wire->in($after);
            $curve = $this->changed($placed, $this->range->shifted($placed->ahead()));
            $after = $curve == $placed->curve() ? $after : $placed->with($curve);
        }

        return $after;
    }

    /** Keyframes that it goes through. */
    public function effort(Mix $mix): int
    {
        return array_sum(array_map(static fn (Wire $wire): int => 1 + \count($wire->in($mix)->curve()->keyframes), $this->wires));
    }

    /** @param Span $range in the curve's own time */
    abstract protected function changed(PlacedWire $wire, Span $range): Curve;

    protected function where(Mix $mix): string
    {
        $what = 1 === \count($this->wires) ? $this->wires[0]->in($mix)->name() : \sprintf('%d clips', \count($this->wires));

        return $what.'%s, '.Naming::span($mix, $this->range);
    }
}
