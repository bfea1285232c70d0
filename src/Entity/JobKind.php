<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

enum JobKind: string
{
    case Ingest = 'ingest';
    case Picture = 'picture';
    case Render = 'render';
}
