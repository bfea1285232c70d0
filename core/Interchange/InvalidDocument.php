<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use DomainException;
use Throwable;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidDocument extends DomainException implements Problem
{
    use NamesField;

    public static function missing(string $field): self
    {
        return new self(\sprintf('“%s” is missing.', $field), $field);
    }

    public static function wrongType(string $field, string $wanted): self
    {
        return new self(\sprintf('“%s” must be %s.', $field, $wanted), $field);
    }

    public static function unknownField(string $field): self
    {
        return new self(\sprintf('“%s” is not known here. Check its spelling.', $field), $field);
    }

    public static function notAMix(): self
    {
        return new self('This is not a Wattage mix: “format” must be "wattage-mix".', 'format');
    }

    public static function newerVersion(int $version): self
    {
        return new self(\sprintf('This mix is written in version %d of the format; this program reads version %d.', $version, MixDocument::VERSION), 'version');
    }

    public static function notJson(string $reason): self
    {
        return new self(\sprintf('This is not JSON: %s.', $reason));
    }

    public static function at(string $field, Throwable $problem): self
    {
        return new self($problem->getMessage(), $field);
    }

    public static function tooMany(string $path, int $most): self
    {
        return new self(\sprintf('At most %s at once. Do it in several steps.', number_format($most)), $path);
    }
}
