<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Picture;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Sets where a picture that stands by itself starts and ends; what it shows stays where it is on the timeline. */
final readonly class TrimPicture implements Edit
{
    public function __construct(private string $picture, private Span $span)
    {
    }

    public function label(Mix $before): string
    {
        return "Trim the picture of {$before->source($before->picture($this->picture)->source)->name} to ".Naming::span($before, $this->span);
    }

    public function apply(Mix $before): Mix
    {
        $picture = $before->picture($this->picture);
        $source = $before->source($picture->source);
        $in = $picture->in + $this->span->from - $picture->at;
        $in >= 0 && $in + $this->span->length() <= $source->length || throw InvalidEdit::beyondPicture($source->name);
        $trimmed = $picture->trimmedTo($this->span);

        return $trimmed == $picture ? $before : $before->withPicture($trimmed);
    }
}
