<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** Lets another recording sound in a clip's place: where it stands, its gain, curve, fades and the lanes over it stay. */
final readonly class ReplaceSound implements Edit
{
    /** @param Source $source taken into the mix when it is not there yet */
    public function __construct(private string $clip, private Source $source)
    {
    }

    public function label(Mix $before): string
    {
        return "Replace {$before->clip($this->clip)->name} by {$this->source->name}";
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        if ($clip->source === $this->source->id) {
            return $before;
        }
        $withSource = isset($before->sources[$this->source->id]) ? $before : $before->withSource($this->source);

        return $withSource->withClip($clip->playing($this->source));
    }
}
