<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidSound extends DomainException implements Problem
{
    use NamesField;

    public static function channels(int $channels): self
    {
        return new self(\sprintf('Loudness is defined for 1 to %d channels, not for %d. Fold the sound down first.', ChannelWeights::MOST, $channels), 'channels');
    }

    public static function rate(int $rate): self
    {
        return new self("Loudness is measured at 8,000 to 192,000 samples a second, not at {$rate}. Convert the sound first.", 'rate');
    }
}
