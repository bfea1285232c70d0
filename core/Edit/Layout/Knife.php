<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\FreshIds;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;
use Wattage\Core\Timeline\UnknownItem;

/** Cuts clips in two, such that both halves together sound as the whole did. */
final readonly class Knife
{
    private FreshIds $ids;

    public function __construct(Mix $mix)
    {
        $this->ids = new FreshIds($mix);
    }

    /**
     * Cuts clips of one track, each at any number of moments.
     *
     * @param array<string, list<int>> $cuts timeline samples within the clip, by its id
     *
     * @throws InvalidEdit at an edge, or where the clip crosses over with another
     */
    public function along(Track $track, array $cuts): Track
    {
        $fades = Fades::of($track);
        $pieces = [];
        foreach ($cuts as $id => $moments) {
            $clip = $track->clips[$id] ?? throw UnknownItem::clip();
            $alone = self::alone($clip, ...$fades->ofClip($clip->id));
            // From the back, so that what is named still begins where it did.
            rsort($moments);
            foreach ($moments as $at) {
                $at > $clip->at && $at < $clip->end() || throw InvalidEdit::splitAtEdge($clip->name);
                $at >= $alone->from && $at <= $alone->to || throw InvalidEdit::splitInCrossing($clip->name);
                [$clip, $pieces[]] = $this->inTwo($clip, $at);
            }
            $pieces[] = $clip;
        }

        return $track->withClip(...$pieces);
    }

    /**
     * Where a clip crosses over with no other.
     *
     * @param Fade $in as it is heard
     * @param Fade $out likewise
     */
    private static function alone(Clip $clip, Fade $in, Fade $out): Span
    {
        $from = $clip->at + ($in == $clip->fadeIn ? 0 : $in->length);

        return Span::of($from, max($from + 1, $clip->end() - ($out == $clip->fadeOut ? 0 : $out->length)));
    }

    /** @return array{Clip, Clip} the second one with an id of its own */
    private function inTwo(Clip $clip, int $at): array
    {
        $left = $clip->trimmedTo(Span::of($clip->at, $at));
        $right = $clip->trimmedTo(Span::of($at, $clip->end()))->called($this->ids->after($clip->id));
        [$inLeft, $inRight] = $clip->fadeIn->cutAt($left->length);
        [$outRight, $outLeft] = $clip->fadeOut->cutAt($right->length);

        return [$left->withFades($inLeft, $outLeft), $right->withFades($inRight, $outRight)];
    }

    /** Cuts all clips of a track that sound across a position, and are not cut there already. */
    public function through(Track $track, int $at): Track
    {
        $across = array_filter($track->clips, static fn (Clip $clip): bool => $at > $clip->at && $at < $clip->end());

        return [] === $across ? $track : $this->along($track, array_map(static fn (): array => [$at], $across));
    }
}
