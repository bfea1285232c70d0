<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

enum ExcerptKind: string
{
    case Programme = 'programme';
    case Stem = 'stem';
    case Without = 'without';
    case Track = 'track';
}
