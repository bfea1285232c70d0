<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\FreshIds;
use Wattage\Core\Timeline\Mix;

/** Repeats a clip until a moment, each turn right after the one before or crossing over with it; the last is cut to fit. */
final readonly class LoopClip implements Edit
{
    /**
     * @param int $until timeline samples
     * @param int $overlap samples that turns cross over by
     */
    public function __construct(private string $clip, private int $until, private int $overlap = 0)
    {
    }

    public function label(Mix $before): string
    {
        return "Loop {$before->clip($this->clip)->name} until ".Timecode::clock($this->until, $before->rate);
    }

    public function apply(Mix $before): Mix
    {
        $track = $before->trackOf($this->clip);
        $clip = $track->clips[$this->clip];
        $this->until > $clip->end() || throw InvalidEdit::loopTooShort($clip->name);
        2 * $this->overlap <= $clip->length || throw InvalidEdit::overlapTooLong($clip->name, $clip->length / 2 / $before->rate);
        $this->until <= Mix::MAX_HOURS * 3600 * $before->rate || throw \Wattage\Core\Timeline\InvalidMix::tooLong('until');
        $turns = intdiv($this->until - $clip->end(), $clip->length - $this->overlap) + 1;
        $turns <= Mix::MAX_CLIPS || throw \Wattage\Core\Timeline\InvalidMix::tooMany('clips', Mix::MAX_CLIPS);
        $ids = new FreshIds($before);
        $copies = [];
        $end = $clip->end();
        while ($end < $this->until) {
            $copy = $clip->called($ids->after($clip->id))->movedTo($end - $this->overlap);
            $end = min($copy->end(), $this->until);
            $copies[] = $copy->trimmedTo(Span::of($copy->at, $end));
        }

        return $before->withTrack($track->withClip(...$copies));
    }
}
