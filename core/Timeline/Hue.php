<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** An ink a track may be given instead of its stem's. */
enum Hue: string
{
    case Moss = 'moss';
    case Brick = 'brick';
    case Slate = 'slate';
    case Plum = 'plum';
    case Ochre = 'ochre';
    case Teal = 'teal';
}
