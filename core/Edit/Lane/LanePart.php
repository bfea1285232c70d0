<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

/** The lanes of a track, as edits name them. */
enum LanePart: string
{
    case Level = 'level';
    case Pan = 'pan';
    case Mute = 'mute';
    case Ducking = 'ducking';
    case Band = 'band';
}
