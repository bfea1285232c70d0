<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Moves keyframes of a clip together in time and level. They stop at their neighbours and at the ends of the clip. */
final readonly class MoveKeyframes implements Edit
{
    /**
     * @param non-empty-list<int> $keyframes their source positions
     * @param int $later samples; negative is earlier
     * @param Decibels $by finite
     */
    public function __construct(private string $clip, private array $keyframes, private int $later, private Decibels $by)
    {
    }

    public function label(Mix $before): string
    {
        $what = 1 === \count($this->keyframes) ? 'keyframe' : \sprintf('%d keyframes', \count($this->keyframes));

        return "Move {$what} of {$before->clip($this->clip)->name}";
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        $chosen = array_fill_keys(array_map($clip->curve->indexOf(...), $this->keyframes), true);
        $later = $this->allowed($clip, $chosen);
        if (0 === $later && 0.0 === $this->by->db) {
            return $before;
        }
        $moved = [];
        foreach ($clip->curve->keyframes as $i => $keyframe) {
            if (isset($chosen[$i])) {
                $level = $keyframe->level->plus($this->by);
                $level->db <= Decibels::MAX_CLIP || throw InvalidCurve::tooLoud($level);
                $keyframe = $keyframe->at($keyframe->position + $later)->withLevel($level);
            }
            $moved[] = $keyframe;
        }

        return $before->withClip($clip->withCurve(Curve::of($moved)));
    }

    /** @param array<int, true> $chosen */
    private function allowed(Clip $clip, array $chosen): int
    {
        $keyframes = $clip->curve->keyframes;
        $later = $this->later;
        foreach (array_keys($chosen) as $i) {
            $position = $keyframes[$i]->position;
            $lowest = isset($keyframes[$i - 1]) ? $keyframes[$i - 1]->position + 1 : 0;
            $highest = isset($keyframes[$i + 1]) ? $keyframes[$i + 1]->position - 1 : \PHP_INT_MAX;
            // Keyframes outside the heard part stay outside; those within stay within.
            $lowest = $position >= $clip->in ? max($lowest, $clip->in) : $lowest;
            $highest = $position <= $clip->in + $clip->length ? min($highest, $clip->in + $clip->length) : $highest;
            if ($later < 0 && !isset($chosen[$i - 1])) {
                $later = max($later, $lowest - $position);
            }
            if ($later > 0 && !isset($chosen[$i + 1])) {
                $later = min($later, $highest - $position);
            }
        }

        return $later;
    }
}
