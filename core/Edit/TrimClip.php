<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/** Sets where a clip starts and ends on the timeline; its sound stays where it is. */
final readonly class TrimClip implements Edit
{
    public function __construct(private string $clip, private Span $span)
    {
    }

    public function label(Mix $before): string
    {
        return "Trim {$before->clip($this->clip)->name} to ".Naming::span($before, $this->span);
    }

    public function apply(Mix $before): Mix
    {
        $clip = $before->clip($this->clip);
        $source = $before->source($clip->source);
        if ($clip->toSource($this->span->from) < 0 || $clip->toSource($this->span->to) > $source->length) {
            throw InvalidEdit::beyondSource($clip->name);
        }
        $same = $clip->at === $this->span->from && $clip->length === $this->span->length();

        return $same ? $before : $before->withClip($clip->trimmedTo($this->span));
    }
}
