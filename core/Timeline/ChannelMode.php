<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Signal\Routing;

/** What a clip takes of the two channels of its source. */
enum ChannelMode: string
{
    case Stereo = 'stereo';
    case Mono = 'mono';
    case Left = 'left';
    case Right = 'right';
    case Swapped = 'swapped';

    /** The mono sum is half of each; source: W3C Web Audio API, down-mixing from stereo to mono. */
    public function routing(): Routing
    {
        return match ($this) {
            self::Stereo => Routing::straight(),
            self::Mono => new Routing(0.5, 0.5, 0.5, 0.5),
            self::Left => new Routing(1.0, 0.0, 1.0, 0.0),
            self::Right => new Routing(0.0, 1.0, 0.0, 1.0),
            self::Swapped => new Routing(0.0, 1.0, 1.0, 0.0),
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Stereo => 'both channels',
            self::Mono => 'the mono sum',
            self::Left => 'the left channel only',
            self::Right => 'the right channel only',
            self::Swapped => 'left and right swapped',
        };
    }
}
