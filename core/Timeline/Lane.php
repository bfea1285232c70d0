<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** The lanes of a track whose level is edited like the curve of a clip. */
enum Lane: string
{
    case Level = 'level';
    case Ducking = 'ducking';
    case Band = 'band';
}
