<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
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
            $clip = $after->clip($wire->clip);
            if ($clip->span()->meets($this->range)) {
                $touched = true;
                $old = $wire->curveOf($clip);
                $curve = $this->changed($old, $this->range->shifted($clip->in - $clip->at), $clip->heard(), $after, $wire);
                $after = $curve == $old ? $after : $after->withClip($wire->putInto($clip, $curve));
            }
        }

        return $touched ? $after : throw InvalidEdit::notOverAnyClip();
    }

    /**
     * @param Span $range in the curve's time
     * @param Span $bounds the part of the curve that is heard
     */
    abstract protected function changed(Curve $curve, Span $range, Span $bounds, Mix $mix, Wire $wire): Curve;

    protected function where(Mix $mix): string
    {
        $what = 1 === \count($this->wires) ? Naming::wire($mix, $this->wires[0]) : \sprintf('%d clips', \count($this->wires));

        return $what.'%s, '.Naming::span($mix, $this->range);
    }
}
