<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** The kind of sound a track carries. Speech is what the others must leave room for. */
enum Stem: string
{
    case Speech = 'speech';
    case Music = 'music';
    case Ambience = 'ambience';
    case Effects = 'effects';
}
