<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

/** What of a clip's levels can be put back to how it came in. */
enum ResetPart: string
{
    case Gain = 'gain';
    case Curve = 'curve';
    case Fades = 'fades';
    case Channels = 'channels';
}
