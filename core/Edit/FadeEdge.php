<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

enum FadeEdge: string
{
    case In = 'in';
    case Out = 'out';
}
