<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Raises or lowers the gain of clips by a difference; silent clips stay silent. */
final readonly class ChangeClipGain implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private Decibels $by)
    {
    }

    public function label(Mix $before): string
    {
        return 'Change '.Naming::clips($before, $this->clips)." by {$this->by->format()}";
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->withGain($clip->gain->plus($this->by)->atMost(Decibels::MAX_CLIP)));
    }
}
