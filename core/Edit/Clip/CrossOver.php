<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Lets two clips that follow one another cross over: both reach into the cut as far as their sources have sound. */
final readonly class CrossOver implements Edit
{
    /** @param int $length samples that the two are to overlap by; 0 makes a plain cut */
    public function __construct(private string $earlier, private string $later, private int $length, private ?FadeShape $shape = null)
    {
    }

    public function label(Mix $before): string
    {
        return "Cross {$before->clip($this->earlier)->name} over to {$before->clip($this->later)->name} in ".Naming::seconds($before, $this->length);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->trackOf($this->earlier);
        [$first, $second] = [$before->clip($this->earlier), $before->clip($this->later)];
        isset($track->clips[$second->id]) && $first->at < $second->at && $second->at <= $first->end() && $first->end() < $second->end()
            || throw InvalidEdit::noCut($first->name, $second->name);
        $missing = $this->length - ($first->end() - $second->at);
        [$later, $earlier] = $this->shared($before, $first, $second, $missing);
        $first = $first->trimmedTo(Span::of($first->at, $first->end() + $later));
        $second = $second->trimmedTo(Span::of($second->at - $earlier, $second->end()));
        $second = $second->withFades(Fade::of($second->fadeIn->length, $this->shape ?? $second->fadeIn->shape), $second->fadeOut);

        return $track->clips[$first->id] == $first && $track->clips[$second->id] == $second ? $before : $before->withTrack($track->withClip($first, $second));
    }

    /**
     * How much the first ends later and the second starts earlier: half each, where their sources have it.
     *
     * @return array{int, int}
     */
    private function shared(Mix $mix, Clip $first, Clip $second, int $missing): array
    {
        $half = intdiv($missing, 2);
        if ($missing <= 0) {
            return [$half, $missing - $half];
        }
        $afterFirst = min($mix->source($first->source)->length - $first->in - $first->length, $second->end() - 1 - $first->end());
        $beforeSecond = min($second->in, $second->at - 1 - $first->at, $second->at);
        $later = max($missing - $beforeSecond, min($half, $afterFirst));
        $later <= $afterFirst || throw InvalidEdit::noSoundForCrossing($first->name, $second->name, ($first->end() - $second->at + $afterFirst + $beforeSecond) / $mix->rate);

        return [$later, $missing - $later];
    }
}
