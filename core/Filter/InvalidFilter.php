<?php

declare(strict_types=1);

namespace Wattage\Core\Filter;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

/** A filter that cannot be. */
final class InvalidFilter extends DomainException implements Problem
{
    use NamesField;

    public static function lowCutOutOfRange(float $from, float $to): self
    {
        return new self("A low cut lies between {$from} and {$to} Hz.", 'hertz');
    }

    public static function noSuchSlope(): self
    {
        return new self('A low cut falls by 12 or 24 dB an octave.', 'slope');
    }

    public static function fourParts(): self
    {
        return new self('The tone has four parts: low shelf, two bells, high shelf.', 'tone');
    }

    public static function toneOutOfRange(float $from, float $to): self
    {
        return new self("The tone is set between {$from} and {$to} Hz.", 'hertz');
    }

    public static function notRising(): self
    {
        return new self('Each part of the tone lies higher than the one before it.', 'hertz');
    }

    public static function tooMuchTone(float $most): self
    {
        return new self("The tone is lifted or lowered by {$most} dB at most.", 'db');
    }
}
