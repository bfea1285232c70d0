<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidTarget extends DomainException implements Problem
{
    use NamesField;

    public static function loudness(float $value): self
    {
        return new self(\sprintf('A loudness of %s LUFS cannot be asked for. Choose one from %.0f to %.0f LUFS.', self::number($value), Target::QUIETEST, Target::LOUDEST), 'loudness');
    }

    public static function truePeak(float $value): self
    {
        return new self(\sprintf('A true peak of %s dBTP cannot be asked for. Choose one from %.0f to %.0f dBTP.', self::number($value), Target::LOWEST_PEAK, Target::HIGHEST_PEAK), 'truePeak');
    }

    public static function silence(): self
    {
        return new self('This is silent, or too short to measure, so that no gain brings it to a loudness. Choose another range, or hand it over as loud as it is.', 'loudness');
    }

    private static function number(float $value): string
    {
        return is_finite($value) ? (string) round($value, 1) : 'that size';
    }
}
