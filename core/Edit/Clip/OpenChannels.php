<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Timeline\ChannelLevel;
use Wattage\Core\Timeline\Channels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;

/** Opens stereo clips into their two channels, each with its own level, or closes them again, which drops those levels. */
final readonly class OpenChannels implements Edit
{
    /** @param non-empty-list<string> $clips */
    public function __construct(private array $clips, private bool $open)
    {
    }

    public function label(Mix $before): string
    {
        return ($this->open ? 'Open' : 'Reset').' the channels of '.Naming::clips($before, $this->clips);
    }

    public function apply(Mix $before): Mix
    {
        return $before->changingClips($this->clips, fn (Clip $clip): Clip => $clip->channels->isOpen() === $this->open ? $clip : $clip->withChannels(
            $this->open ? Channels::opened($clip->channels->mode, ChannelLevel::usual(), ChannelLevel::usual()) : Channels::closed($clip->channels->mode),
        ));
    }
}
