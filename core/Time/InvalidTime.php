<?php

declare(strict_types=1);

namespace Wattage\Core\Time;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidTime extends DomainException implements Problem
{
    use NamesField;

    public static function reversed(int $from, int $to): self
    {
        return new self(\sprintf('A range must end after it starts; this one goes from sample %d to %d.', $from, $to));
    }

    public static function unreadable(string $text): self
    {
        return new self(\sprintf('“%s” is not a time. Type timecode (00:01:12:09) or minutes and seconds (1:12.36).', mb_strimwidth($text, 0, 40, '…')));
    }

    public static function notALength(string $text): self
    {
        return new self(\sprintf('“%s” is not a length. Type seconds (0.5), milliseconds (250 ms) or frames (12 f).', mb_strimwidth($text, 0, 40, '…')));
    }

    public static function noSuchFrame(string $text): self
    {
        return new self(\sprintf('%s does not exist at this frame rate.', mb_strimwidth($text, 0, 40, '…')));
    }

    public static function unknownFrameRate(string $name): self
    {
        return new self(\sprintf('Frame rate “%s” is not known. Use one of: %s.', mb_strimwidth($name, 0, 20, '…'), implode(', ', array_column(FrameRate::cases(), 'value'))), 'frameRate');
    }
}
