<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidAudio extends DomainException implements Problem
{
    use NamesField;

    public static function unsupportedPcm(int $channels, int $bits): self
    {
        return new self(\sprintf('Internal sound has 1 or 2 channels of 16 or 24 bits, not %d of %d.', $channels, $bits));
    }

    public static function unwritableRate(int $rate): self
    {
        return new self(\sprintf('A WAV file cannot state the rate %d.', $rate), 'rate');
    }
}
