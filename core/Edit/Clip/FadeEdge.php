<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Clip;

enum FadeEdge: string
{
    case In = 'in';
    case Out = 'out';
}
