<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

/** What an edit names is not, or no longer, in the mix. Said without its id, which nobody has ever seen. */
final class UnknownItem extends DomainException implements Problem
{
    use NamesField;

    public static function clip(): self
    {
        return new self('This clip is not in the mix any more: it was removed meanwhile.', 'clip');
    }

    public static function track(): self
    {
        return new self('This track is not in the mix any more: it was removed meanwhile.', 'track');
    }

    public static function source(): self
    {
        return new self('This recording is not in the project any more. Bring it in again.', 'source');
    }

    public static function rule(): self
    {
        return new self('This rule is not in the mix any more: it was removed meanwhile.', 'rule');
    }

    public static function marker(): self
    {
        return new self('This marker is not in the mix any more: it was removed meanwhile.', 'marker');
    }

    public static function point(string $track): self
    {
        return new self("Track “{$track}” has no pan point there. It may have been moved or removed meanwhile.", 'point');
    }

    public static function cut(): self
    {
        return new self('Nothing of this cut is on the timeline. Lay it as a new one.', 'instead');
    }

    public static function picture(): self
    {
        return new self('This picture is not in the mix any more: it was removed meanwhile.', 'picture');
    }
}
