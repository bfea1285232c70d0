<?php

declare(strict_types=1);

namespace Wattage\Core\Fade;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidFade extends DomainException implements Problem
{
    use NamesField;

    public static function negative(): self
    {
        return new self('A fade cannot have a negative length. Type 0 to remove it.', 'length');
    }

    public static function tooLong(string $clip, float $clipSeconds): self
    {
        return new self(\sprintf('A fade cannot be longer than its clip: “%s” lasts %.2f s. Choose a shorter fade.', $clip, $clipSeconds), 'length');
    }

    public static function meet(string $clip, float $leftSeconds): self
    {
        return new self(\sprintf('The two fades of “%s” would meet: %.2f s are left for this one. Choose a shorter fade, or shorten the other.', $clip, $leftSeconds), 'length');
    }

    public static function badWindow(): self
    {
        return new self('The window of a fade must lie within 0 and 1 and end after it starts.', 'windowFrom');
    }
}
