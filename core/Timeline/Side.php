<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** One of the two channels of a stereo recording. */
enum Side: string
{
    case Left = 'left';
    case Right = 'right';
}
