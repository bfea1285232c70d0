<?php

declare(strict_types=1);

namespace Wattage\Core\Ride;

/** What a pass does to a lane. Modes in which nothing is written send no pass. */
enum Mode: string
{
    case Write = 'write';
    case Touch = 'touch';
    case Latch = 'latch';
}
