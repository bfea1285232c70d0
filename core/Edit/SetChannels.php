<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Timeline\ChannelMode;
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
        $after = $before;
        foreach ($this->clips as $id) {
            $clip = $before->clip($id);
            $after = $clip->channels->mode === $this->mode ? $after : $after->withClip($clip->withChannels($clip->channels->withMode($this->mode)));
        }

        return $after;
    }
}
