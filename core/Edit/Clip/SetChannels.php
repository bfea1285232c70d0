<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Sets what clips take of the channels of their sources. */
final readonly class SetChannels implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private ChannelMode $mode)
    {
    }

    public function label(Mix $before): string
    {
        return 'Take '.$this->mode->label().' of '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->withChannels($clip->channels->withMode($this->mode)));
    }
}
