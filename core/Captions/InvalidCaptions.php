<?php

declare(strict_types=1);

namespace Wattage\Core\Captions;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidCaptions extends DomainException implements Problem
{
    use NamesField;

    public static function none(string $why): self
    {
        return new self("There is no caption in this file that can be used: {$why}. Bring in WebVTT or SubRip (SRT).", 'text');
    }

    public static function text(int $most): self
    {
        return new self("A caption holds at most {$most} characters. Split it.", 'text');
    }

    public static function notUtf8(): self
    {
        return new self('These captions are not written in UTF-8. Save the file as UTF-8 and bring it in again.', 'text');
    }

    public static function tooMany(int $most): self
    {
        return new self("A project holds at most {$most} captions. Split the file.", 'text');
    }

    public static function tooLarge(int $bytes): self
    {
        return new self(\sprintf('Captions are read up to %d kB. This file is larger; is it a caption file?', intdiv($bytes, 1000)), 'text');
    }
}
