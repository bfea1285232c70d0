<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

/** What becomes of the pauses when the speech between them is steadied. They are never lifted. */
enum Pauses: string
{
    /** As loud as they were. */
    case Keep = 'keep';
    /** Down with the speech around them, and not up. */
    case Follow = 'follow';
    /** Softer than they were. */
    case Hush = 'hush';
}
