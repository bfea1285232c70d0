<?php

declare(strict_types=1);

namespace Wattage\Core\Ducking;

/** Why a stretch makes a dip, or does not. */
enum Heard: string
{
    case Found = 'found';
    case Added = 'added';
    case TooShort = 'short';
    case TooQuiet = 'quiet';
    case Dropped = 'dropped';

    public function ducks(): bool
    {
        return self::Found === $this || self::Added === $this;
    }
}
