<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** What a rule does for speech. */
enum DuckKind: string
{
    /** Tracks give way while others speak. */
    case Under = 'under';
    /** Tracks of speech go down in their own pauses. */
    case Hush = 'hush';
    /** Of several microphones in one room those give way that nobody speaks into. */
    case Turns = 'turns';
}
