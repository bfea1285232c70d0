<?php

declare(strict_types=1);

namespace Wattage\Core\Cut;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidCut extends DomainException implements Problem
{
    use NamesField;

    public static function notOtio(): self
    {
        return new self('This is not an OpenTimelineIO file: it has no timeline with tracks. Export the cut again, as .otio.', 'file');
    }

    public static function tooDeep(): self
    {
        return new self('This file cannot be read: it is damaged, or its parts lie within one another too deeply. Export the cut again, without nested timelines.', 'file');
    }

    public static function tooLarge(int $megabytes): self
    {
        return new self("A cut has {$megabytes} MB at most. Export one reel or one scene at a time.", 'file');
    }

    public static function tooMany(string $what, int $most): self
    {
        return new self("A cut has {$most} {$what} at most, and this has more. Export a part of it.", 'file');
    }

    public static function badTime(string $where): self
    {
        return new self("A time in “{$where}” cannot be: its rate must be above 0, and it must lie between the start and 24 hours. Export the cut again.", 'file');
    }

    public static function notACut(): self
    {
        return new self('This is no cut that can be read here: it is neither OpenTimelineIO nor an edit decision list. Export the cut again, as .otio or .edl.', 'file');
    }

    public static function notEdl(): self
    {
        return new self('There is no event in this edit decision list. Export the cut again, in the CMX 3600 form.', 'file');
    }

    public static function dropFrames(string $frameRate): self
    {
        return new self("This list counts drop-frame timecode, and the project {$frameRate} frames per second. Set the project’s frame rate to 29.97df, then bring the cut in.", 'file');
    }

    public static function badTimecode(string $text, int $line, string $frameRate): self
    {
        return new self("“{$text}” in line {$line} cannot be at {$frameRate} frames per second. Set the project’s frame rate to that of the cut, or export it again.", 'file');
    }

    public static function noTime(string $name): self
    {
        return new self("“{$name}” does not say when it was recorded: it has no broadcast time reference. Lay them so that all begin at once.", 'sources');
    }

    public static function tooFarApart(string $name): self
    {
        return new self("“{$name}” would end beyond 24 hours. Lay what was recorded on another day by itself.", 'sources');
    }

    public static function noClips(): self
    {
        return new self('There is no sound in this cut: no clip on any track of sound. Export it with its sound.', 'file');
    }
}
