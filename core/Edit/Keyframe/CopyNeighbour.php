<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Edit\Chosen;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Mix;

/** Gives each keyframe the level of the one before it, or after it. */
final readonly class CopyNeighbour implements Edit
{
    /** @param non-empty-list<Chosen> $chosen */
    public function __construct(private array $chosen, private bool $previous)
    {
    }

    public function label(Mix $before): string
    {
        return \sprintf('Level %s with the %s one', Naming::keyframes($before, $this->chosen), $this->previous ? 'previous' : 'next');
    }

    public function apply(Mix $before): Mix
    {
        $after = $before;
        foreach ($this->chosen as $chosen) {
            $placed = $chosen->wire->in($after);
            $curve = $placed->curve();
            $keyframes = $curve->keyframes;
            foreach ($this->inOrder($chosen->keyframes) as $position) {
                $i = $curve->indexOf($position);
                $neighbour = $keyframes[$i + ($this->previous ? -1 : 1)] ?? throw InvalidEdit::noNeighbour($this->previous);
                $keyframes[$i] = $keyframes[$i]->withLevel($neighbour->level);
            }
            $after = $keyframes == $curve->keyframes ? $after : $placed->with(Curve::of(array_values($keyframes)));
        }

        return $after;
    }

    /**
     * So that a row of chosen keyframes takes the level of the one that is not chosen.
     *
     * @param non-empty-list<int> $positions
     *
     * @return non-empty-list<int>
     */
    private function inOrder(array $positions): array
    {
        $this->previous ? sort($positions) : rsort($positions);

        return $positions;
    }
}
