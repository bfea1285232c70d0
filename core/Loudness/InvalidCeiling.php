<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidCeiling extends DomainException implements Problem
{
    use NamesField;

    public static function tooLow(float $ceiling): self
    {
        return new self(\sprintf('More than a minute of sound is above %.1f dBFS; those are not single peaks. Choose a higher ceiling, or lower the clip.', $ceiling), 'ceiling');
    }
}
