<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\Mix;

/** Removes keyframes of a clip. */
final readonly class RemoveKeyframes implements Edit
{
    /** @param non-empty-list<int> $keyframes their source positions */
    public function __construct(private string $clip, private array $keyframes)
    {
    }

    public function label(Mix $before): string
    {
        $what = 1 === \count($this->keyframes) ? 'keyframe' : \sprintf('%d keyframes', \count($this->keyframes));

        return "Remove {$what} of {$before->clip($this->clip)->name}";
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        $curve = $clip->curve;
        foreach (array_unique($this->keyframes) as $position) {
            $curve = $curve->without($position);
        }

        return $before->withClip($clip->withCurve($curve));
    }
}
