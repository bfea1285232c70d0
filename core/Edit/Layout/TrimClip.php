<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Naming;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\TimeMap;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

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
        return "Trim {$before->clip($this->clip)->name} to ".Naming::span($before, $this->span).($this->ripple ? ", and what comes later on {$before->trackOf($this->clip)->name}" : '');
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
        // What the start loses or gains moves the rest of the clip and all later ones; then so does the end.
        $start = $this->span->from - $clip->at;
        $after = $before->withTrack($track->withClip($trimmed->movedTo($clip->at)));
        $after = Ripple::track($after, $track->id, $start > 0 ? TimeMap::removing(Span::of($clip->at, $clip->at + $start)) : TimeMap::inserting($clip->at, -$start), $clip->id);

        return Ripple::track($after, $track->id, TimeMap::shifting(self::seam($track, $clip) - $start, $this->span->to - $clip->end()), $clip->id);
    }

    /** Where what comes after a clip begins: its end, or where the next one crosses over with it, so that they go on doing so. */
    private static function seam(Track $track, Clip $clip): int
    {
        $within = array_filter($track->clips, static fn (Clip $other): bool => $other->at > $clip->at && $other->at < $clip->end());

        return [] === $within ? $clip->end() : min(array_column($within, 'at'));
    }
}
