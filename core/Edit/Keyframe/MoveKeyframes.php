<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Edit\Chosen;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Moves keyframes together in time and level, of one wire or of several. They stop at their neighbours and at the ends of their clips. */
final readonly class MoveKeyframes implements Edit
{
    /**
     * @param non-empty-list<Chosen> $chosen
     * @param int $later samples; negative is earlier
     * @param Decibels $by finite
     */
    public function __construct(private array $chosen, private int $later, private Decibels $by)
    {
    }

    public function label(Mix $before): string
    {
        $what = Naming::keyframes($before, $this->chosen);
        if (0 === $this->later) {
            return \sprintf('%s %s by %s dB', $this->by->db < 0 ? 'Lower' : 'Raise', $what, Naming::amount($this->by->db));
        }

        return "Move {$what}";
    }

    public function apply(Mix $before): Mix
    {
        $later = $this->later;
        foreach ($this->chosen as $chosen) {
            $placed = $chosen->wire->in($before);
            $later = $this->allowed($placed->bounds(), $placed->curve(), $this->indices($placed->curve(), $chosen), $later);
        }
        if (0 === $later && 0.0 === $this->by->db) {
            return $before;
        }
        $after = $before;
        foreach ($this->chosen as $chosen) {
            $placed = $chosen->wire->in($after);
            $after = $placed->with($this->moved($placed->curve(), $this->indices($placed->curve(), $chosen), $later));
        }

        return $after;
    }

    /** @return array<int, true> */
    private function indices(Curve $curve, Chosen $chosen): array
    {
        return array_fill_keys(array_map($curve->indexOf(...), $chosen->keyframes), true);
    }

    /** @param array<int, true> $indices */
    private function moved(Curve $curve, array $indices, int $later): Curve
    {
        $moved = [];
        foreach ($curve->keyframes as $i => $keyframe) {
            if (isset($indices[$i])) {
                $level = $keyframe->level->plus($this->by);
                $level->db <= Decibels::MAX_CLIP || throw InvalidCurve::tooLoud($level);
                $keyframe = $keyframe->at($keyframe->position + $later)->withLevel($level);
            }
            $moved[] = $keyframe;
        }

        return Curve::of($moved);
    }

    /** @param array<int, true> $chosen */
    private function allowed(Span $bounds, Curve $curve, array $chosen, int $later): int
    {
        $keyframes = $curve->keyframes;
        foreach (array_keys($chosen) as $i) {
            $position = $keyframes[$i]->position;
            $lowest = isset($keyframes[$i - 1]) ? $keyframes[$i - 1]->position + 1 : 0;
            $highest = isset($keyframes[$i + 1]) ? $keyframes[$i + 1]->position - 1 : \PHP_INT_MAX;
            if (isset($chosen[$i - 1])) {
                $lowest = 0;
            }
            if (isset($chosen[$i + 1])) {
                $highest = \PHP_INT_MAX;
            }
            // Keyframes outside the heard part stay outside; those within stay within.
            $lowest = $position >= $bounds->from ? max($lowest, $bounds->from) : $lowest;
            $highest = $position <= $bounds->to ? min($highest, $bounds->to) : $highest;
            $later = $later < 0 ? max($later, $lowest - $position) : min($later, $highest - $position);
        }

        return $later;
    }
}
