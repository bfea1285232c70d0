<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;

/**
 * Sets where a clip starts and ends; its sound stays where it is on the timeline. With ripple, no gap opens: a clip shortened at
 * its start stays where it began, and what comes later on its track moves along.
 */
final readonly class TrimClip implements Edit
{
    public function __construct(private string $clip, private Span $span, private bool $ripple = false)
    {
    }

    public function label(Mix $before): string
    {
        return "Trim {$before->clip($this->clip)->name} to ".Naming::span($before, $this->span);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->trackOf($this->clip);
        $clip = $track->clips[$this->clip];
        $source = $before->source($clip->source);
        if ($clip->toSource($this->span->from) < 0 || $clip->toSource($this->span->to) > $source->length) {
            throw InvalidEdit::beyondSource($clip->name);
        }
        if ($clip->at === $this->span->from && $clip->length === $this->span->length()) {
            return $before;
        }
        $trimmed = $clip->trimmedTo($this->span);
        if (!$this->ripple) {
            return $before->withTrack($track->withClip($trimmed));
        }
        $track = Ripple::later($track, $clip->end(), $trimmed->length - $clip->length, [$clip->id]);

        return $before->withTrack($track->withClip($trimmed->movedTo($clip->at)));
    }
}
