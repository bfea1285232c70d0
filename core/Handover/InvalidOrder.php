<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use DomainException;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

final class InvalidOrder extends DomainException implements Problem
{
    use NamesField;

    public static function bits(FileFormat $format): self
    {
        return new self(\sprintf('A %s file has %s bits per sample. Choose one of these.', strtoupper($format->value), implode(' or ', $format->bits())), 'bits');
    }

    public static function kbps(FileFormat $format): self
    {
        [$least, , $most] = $format->kbps();

        return new self(\sprintf('A %s file has %d to %d kilobits per second. Choose a number in between.', strtoupper($format->value), $least, $most), 'kbps');
    }

    public static function rate(FileFormat $format): self
    {
        return new self(\sprintf('A %s file has %s samples per second. Choose one of these.', strtoupper($format->value), implode(' or ', array_map(number_format(...), $format->rates()))), 'rate');
    }

    public static function channels(): self
    {
        return new self('A file is mono or stereo: 1 or 2 channels.', 'channels');
    }

    public static function pattern(): self
    {
        return new self('A pattern for names has 1 to 120 letters and knows {project}, {recipe}, {part}, {date}, {revision} and {loudness}. Mend what stands in braces.', 'pattern');
    }

    public static function tooManyFiles(int $most): self
    {
        return new self("A recipe has 1 to {$most} files. Make another for the rest.", 'files');
    }

    public static function tooManyRecipes(int $most): self
    {
        return new self("There are {$most} recipes already. Remove one first.", 'name');
    }
}
