<?php

declare(strict_types=1);

namespace Wattage\Core\Level;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidLevel extends DomainException implements Problem
{
    use NamesField;

    public static function notALevel(): self
    {
        return new self('A level must be a finite number of dB, or silence.');
    }

    public static function unreadable(string $text): self
    {
        return new self(\sprintf('“%s” is not a level. Type dB (-6 or -6 dB), a percentage (80%%), or -inf for silence.', mb_strimwidth($text, 0, 40, '…')));
    }

    public static function tooHigh(Decibels $level, Decibels $limit): self
    {
        return new self(\sprintf('%s is above the highest level here, %s.', $level->format(), $limit->format()));
    }

    public static function negativePercent(): self
    {
        return new self('A percentage cannot be negative: 0% is silence, 100% is unchanged.');
    }
}
