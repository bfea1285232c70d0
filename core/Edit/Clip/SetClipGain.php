<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Clip;
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
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->withGain($this->gain));
    }
}
