<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

enum SourceState: string
{
    /** Bytes are still coming in. */
    case Uploading = 'uploading';
    /** All bytes are here; a worker measures them, or soon will. */
    case Analysing = 'analysing';
    case Ready = 'ready';
    /** Could not be used; the reason is in `problem`. */
    case Refused = 'refused';
}
