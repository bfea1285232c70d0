<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class EmptyExcerpt extends DomainException implements Problem
{
    use NamesField;

    public static function nothingThere(): self
    {
        return new self('There is nothing to render yet. Place a clip on a track first.');
    }

    public static function behindTheEnd(): self
    {
        return new self('This range lies behind the end of the programme. Choose one within it.', 'range');
    }

    public static function trackIsGone(): self
    {
        return new self('The track that was to be handed over is not in this mix any more. Choose another.', 'track');
    }

    public static function noPicture(): self
    {
        return new self('There is no picture in this part of the programme, so that no film can be made of it. Hand over its sound, or place a film on the timeline.', 'format');
    }

    public static function tooManyPictures(int $most): self
    {
        return new self("A film is laid of {$most} pieces of picture at most; this has more. Hand over a range of it.", 'format');
    }
}
