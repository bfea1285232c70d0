<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidEdit extends DomainException implements Problem
{
    use NamesField;

    public static function unknownKind(string $kind): self
    {
        return new self(\sprintf('“%s” is not an edit that Wattage knows.', mb_strimwidth($kind, 0, 40, '…')), 'edit');
    }

    public static function beyondSource(string $name): self
    {
        return new self(\sprintf('“%s” has no more sound there. Trim within the source.', $name), 'from');
    }

    public static function notOverAnyClip(): self
    {
        return new self('The range touches none of the clips. Select a range over a clip.', 'from');
    }

    public static function keyframeOutsideClip(string $name): self
    {
        return new self(\sprintf('That moment lies outside “%s”. Keyframes stand within their clip.', $name), 'at');
    }

    public static function tooMany(string $field, int $limit): self
    {
        return new self(\sprintf('At most %d at once.', $limit), $field);
    }
}
