<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use DomainException;
use Wattage\Core\Level\Decibels;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidCurve extends DomainException implements Problem
{
    use NamesField;

    public static function notRising(int $position): self
    {
        return new self(\sprintf('Keyframes must stand at rising times; the one at sample %d does not.', $position), 'curve');
    }

    public static function negativePosition(): self
    {
        return new self('A keyframe cannot stand before the start of its sound.');
    }

    public static function tooMany(int $limit): self
    {
        return new self(\sprintf('One curve holds at most %d keyframes. Thin it first.', $limit));
    }

    public static function noKeyframe(int $position): self
    {
        return new self(\sprintf('This keyframe is not there any more: it was moved or removed meanwhile (sample %d). Choose it again.', $position), 'keyframe');
    }

    public static function taken(int $position): self
    {
        return new self(\sprintf('A keyframe already stands at sample %d. Move that one instead.', $position), 'at');
    }

    public static function tooLoud(Decibels $level): self
    {
        return new self(\sprintf('This would lift a keyframe to %s; the highest is +%d dB. Choose a smaller amount.', $level->format(), (int) Decibels::MAX_CLIP), 'by');
    }

    public static function badRamp(string $what): self
    {
        return new self($what, 'ramp');
    }

    public static function outside(): self
    {
        return new self('The range does not touch this clip. Select a range over the clip.', 'from');
    }

    public static function tooShort(): self
    {
        return new self('The range is too short to change. Select a longer one.', 'to');
    }
}
