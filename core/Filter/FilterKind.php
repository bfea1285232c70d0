<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

/** Named as in W3C's Web Audio API. */
enum FilterKind: string
{
    case HighPass = 'highpass';
    case LowShelf = 'lowshelf';
    case Bell = 'peaking';
    case HighShelf = 'highshelf';
}
