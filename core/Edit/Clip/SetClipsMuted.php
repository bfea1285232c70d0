<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Silences clips without touching their levels, or lets them be heard again. */
final readonly class SetClipsMuted implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private bool $muted)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->muted ? 'Mute ' : 'Let be heard: ').Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->withMuted($this->muted));
    }
}
