<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

/** What an edit names is not, or no longer, in the mix. */
final class UnknownItem extends DomainException implements Problem
{
    use NamesField;

    public static function clip(string $id): self
    {
        return new self(\sprintf('Clip %s is not in this mix any more.', $id), 'clip');
    }

    public static function track(string $id): self
    {
        return new self(\sprintf('Track %s is not in this mix any more.', $id), 'track');
    }

    public static function source(string $id): self
    {
        return new self(\sprintf('Source %s is not in this mix.', $id), 'source');
    }

    public static function rule(string $id): self
    {
        return new self(\sprintf('Rule %s is not in this mix any more.', $id), 'rule');
    }

    public static function marker(string $id): self
    {
        return new self(\sprintf('Marker %s is not in this mix any more.', $id), 'marker');
    }

    public static function point(string $track): self
    {
        return new self("Track “{$track}” has no pan point there. It may have been moved or removed meanwhile.", 'point');
    }

    public static function picture(string $id): self
    {
        return new self(\sprintf('Picture %s is not in this mix any more.', $id), 'picture');
    }
}
