<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

enum JobKind: string
{
    case Ingest = 'ingest';
    case Render = 'render';
}
