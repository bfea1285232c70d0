<?php

declare(strict_types=1);

namespace Wattage\Core\Edit;

use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\FreshIds;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** Cuts clips in two, such that both halves together sound as the whole did. */
final readonly class Knife
{
    private FreshIds $ids;

    public function __construct(Mix $mix)
    {
        $this->ids = new FreshIds($mix);
    }

    /**
     * @param int $at timeline samples, within the clip
     *
     * @return array{Clip, Clip} the second one with an id of its own
     *
     * @throws InvalidEdit at an edge, or where the clip crosses over with another
     */
    public function cut(Track $track, Clip $clip, int $at): array
    {
        $at > $clip->at && $at < $clip->end() || throw InvalidEdit::splitAtEdge($clip->name);
        [$in, $out] = Fades::of($track)->ofClip($clip->id);
        $crossesIn = $in != $clip->fadeIn && $at < $clip->at + $in->length;
        $crossesOut = $out != $clip->fadeOut && $at > $clip->end() - $out->length;
        $crossesIn || $crossesOut ? throw InvalidEdit::splitInCrossing($clip->name) : null;
        $left = $clip->trimmedTo(Span::of($clip->at, $at));
        $right = $clip->trimmedTo(Span::of($at, $clip->end()))->called($this->ids->after($clip->id));
        [$inLeft, $inRight] = $clip->fadeIn->cutAt($left->length);
        [$outRight, $outLeft] = $clip->fadeOut->cutAt($right->length);

        return [$left->withFades($inLeft, $outLeft), $right->withFades($inRight, $outRight)];
    }

    /** Cuts all clips of a track that sound across a position, and are not cut there already. */
    public function through(Track $track, int $at): Track
    {
        foreach ($track->clips as $clip) {
            if ($at > $clip->at && $at < $clip->end()) {
                $track = $track->withClip(...$this->cut($track, $clip, $at));
            }
        }

        return $track;
    }
}
