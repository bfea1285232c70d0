<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Mix;

/** Lets another part of the source sound between the ends of a clip; keyframes go with the sound. */
final readonly class SlipClip implements Edit
{
    /** @param int $later samples; positive lets a later part of the source sound */
    public function __construct(private string $clip, private int $later)
    {
    }

    public function label(Mix $before): string
    {
        return \sprintf('Slip %s by %s', $before->clip($this->clip)->name, Naming::seconds($before, $this->later));
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        $in = $clip->in + $this->later;
        $in >= 0 && $in + $clip->length <= $before->source($clip->source)->length || throw InvalidEdit::beyondSource($clip->name, 'later');

        return 0 === $this->later ? $before : $before->withClip($clip->slippedTo($in));
    }
}
