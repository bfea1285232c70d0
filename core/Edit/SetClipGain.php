<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;

/** Sets the gain of clips. */
final readonly class SetClipGain implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private Decibels $gain)
    {
    }

    public function label(Mix $before): string
    {
        return 'Set '.Naming::clips($before, $this->clips)." to {$this->gain->format()}";
    }

    public function apply(Mix $before): Mix
    {
        foreach ($this->clips as $id) {
            $clip = $before->clip($id);
            $before = $clip->gain->equals($this->gain) ? $before : $before->withClip($clip->withGain($this->gain));
        }

        return $before;
    }
}
