<?php

declare(strict_types=1);

namespace Wattage\App\Project;

use DomainException;
use Wattage\App\Entity\Source;
use Wattage\App\Entity\SourceState;
use Wattage\Core\NamesField;
use Wattage\Core\Problem;

/** A recording of the project that has no sound to place: not yet, or never. */
final class NotPlaceable extends DomainException implements Problem
{
    use NamesField;

    public static function of(Source $source): self
    {
        return new self(match ($source->state) {
            SourceState::Refused => $source->problem ?? "“{$source->name}” could not be used. Bring it in again.",
            SourceState::Uploading => "“{$source->name}” has not come in whole yet. Place it once it has.",
            default => "“{$source->name}” is being measured. Place it once that is done.",
        }, 'source');
    }
}
