<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Curve\Stretches;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Signal\PanMove;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/** What the lanes of a track do to its clips over time. */
final class TrackMoves
{
    /** What of a track's level does not move: its fader, unless its lane has taken over. */
    public static function still(Track $track): Decibels
    {
        return $track->hasLevelLane() ? Decibels::unchanged() : $track->fader;
    }

    /** Level that is the same all along for a track in its mix: fader, stem and programme. */
    public static function stillIn(Mix $mix, Track $track): Decibels
    {
        return self::still($track)->plus($mix->faders->of($track->stem))->plus($mix->faders->programme);
    }

    /**
     * @return ?non-empty-list<Stretch> level and mute lanes as one over a span of the timeline; null where neither moves
     */
    public static function level(Track $track, Span $span): ?array
    {
        return self::product(self::levelCurves($track), $span);
    }

    /** @return ?non-empty-list<Stretch> in timeline time; null where the track does not give way */
    public static function ducking(Track $track, Span $span): ?array
    {
        return self::lane($track->ducking->curve, $span);
    }

    /** @return ?non-empty-list<Stretch> how far the band of speech is left in, in timeline time; null where it stays as it is */
    public static function band(Track $track, Span $span): ?array
    {
        return self::lane($track->band->curve, $span);
    }

    /** @return ?non-empty-list<Stretch> one lane by itself, in timeline time; null where it does not move */
    public static function lane(Curve $lane, Span $span): ?array
    {
        return self::product($lane->isFlat() ? [] : [$lane], $span);
    }

    /**
     * Level, mute and ducking lanes under a clip.
     *
     * @return ?non-empty-list<Stretch> in the clip's source time, covering what is heard of it; null where nothing moves
     */
    public static function under(Track $track, Clip $clip): ?array
    {
        return self::inClip([...self::levelCurves($track), ...self::duckingCurves($track, $clip)], $clip);
    }

    /**
     * The ducking lane alone under a clip.
     *
     * @return ?non-empty-list<Stretch> in the clip's source time, covering what is heard of it; null where nothing moves
     */
    public static function duckingUnder(Track $track, Clip $clip): ?array
    {
        return self::inClip(self::duckingCurves($track, $clip), $clip);
    }

    /** @return list<Curve> */
    private static function duckingCurves(Track $track, Clip $clip): array
    {
        return $clip->ducked && !$track->ducking->curve->isFlat() ? [$track->ducking->curve] : [];
    }

    /**
     * @param list<Curve> $curves of the track
     *
     * @return ?non-empty-list<Stretch>
     */
    private static function inClip(array $curves, Clip $clip): ?array
    {
        $curves = array_map(static fn (Curve $curve): Curve => $curve->within($clip->at, $clip->end())->shifted($clip->in - $clip->at), $curves);

        return self::product($curves, $clip->heard());
    }

    /**
     * The ways through a track whose pan moves: each entry of the pan's matrix by itself, as long as it is not nothing.
     *
     * @param Routing $before of the clip
     *
     * @return list<array{Routing, non-empty-list<Stretch>}> in the clip's source time
     */
    public static function panned(Track $track, Clip $clip, Routing $before): array
    {
        return self::pannedWays($track, $clip->span(), $clip->in - $clip->at, $before);
    }

    /**
     * The same of all that a track has together.
     *
     * @return list<array{Routing, non-empty-list<Stretch>}> in timeline time
     */
    public static function pannedTogether(Track $track, Span $span): array
    {
        return self::pannedWays($track, $span, 0, Routing::straight());
    }

    /**
     * @param int $shift samples by which the time of what comes out is ahead of the timeline
     *
     * @return list<array{Routing, non-empty-list<Stretch>}>
     */
    private static function pannedWays(Track $track, Span $span, int $shift, Routing $before): array
    {
        $rows = ['ll' => [], 'rl' => [], 'lr' => [], 'rr' => []];
        foreach (self::panMoves($track, $span) as [$from, $to, $first, $last]) {
            $start = $from + $shift;
            $end = $to + $shift;
            $one = Stretch::decibels($start, $end, 0.0);
            $none = Stretch::gain($start, $end, 0.0, 0.0);
            $moving = static fn (bool $sine): Stretch => $first === $last
                ? Stretch::gain($start, $end, (new PanMove($start, $end, $first, $last, $sine))->gainAt($start), (new PanMove($start, $end, $first, $last, $sine))->gainAt($start))
                : $one->times(new PanMove($start, $end, $first, $last, $sine));
            $isLeft = $first < 0.0 || $last < 0.0;
            $rows['ll'][] = $isLeft ? $one : $moving(false);
            $rows['rl'][] = $isLeft ? $moving(false) : $none;
            $rows['lr'][] = $isLeft ? $none : $moving(true);
            $rows['rr'][] = $isLeft ? $moving(true) : $one;
        }
        $ways = [
            'll' => new Routing($before->leftToLeft, $before->rightToLeft, 0.0, 0.0),
            'rl' => new Routing($before->leftToRight, $before->rightToRight, 0.0, 0.0),
            'lr' => new Routing(0.0, 0.0, $before->leftToLeft, $before->rightToLeft),
            'rr' => new Routing(0.0, 0.0, $before->leftToRight, $before->rightToRight),
        ];
        $panned = [];
        foreach ($rows as $entry => $stretches) {
            if ([] !== array_filter($stretches, static fn (Stretch $s): bool => !$s->isSilent())) {
                $panned[] = [$ways[$entry], $stretches];
            }
        }

        return $panned;
    }

    /** @return list<array{int, int, float, float}> from, to, pan at both, never across the centre, covering a span of the timeline */
    public static function panMoves(Track $track, Span $span): array
    {
        $lane = $track->lanes->pan;
        $edges = [$span->from, $span->to];
        $points = $lane->points;
        foreach ($points as $i => [$at, $pan]) {
            $edges[] = $at;
            [$next, $then] = $points[$i + 1] ?? [$at, $pan];
            if ($pan * $then < 0.0) {
                $edges[] = $at + (int) round(($next - $at) * $pan / ($pan - $then));
            }
        }
        $edges = array_values(array_unique(array_filter($edges, static fn (int $at): bool => $at >= $span->from && $at <= $span->to)));
        sort($edges);
        $moves = [];
        for ($i = 1, $n = \count($edges); $i < $n; ++$i) {
            [$first, $last] = [$lane->at($edges[$i - 1]), $lane->at($edges[$i])];
            // Where it crosses the centre between two samples, the nearer one counts as the centre.
            if ($first * $last < 0.0) {
                abs($first) < abs($last) ? $first = 0.0 : $last = 0.0;
            }
            $moves[] = [$edges[$i - 1], $edges[$i], $first, $last];
        }

        return $moves;
    }

    /** @return list<Curve> */
    private static function levelCurves(Track $track): array
    {
        $lanes = $track->lanes;

        return $lanes->off ? [] : array_values(array_filter([$lanes->level, $lanes->mute->curve()], static fn (Curve $curve): bool => !$curve->isFlat()));
    }

    /**
     * @param list<Curve> $curves
     *
     * @return ?non-empty-list<Stretch>
     */
    private static function product(array $curves, Span $span): ?array
    {
        $product = null;
        foreach ($curves as $curve) {
            $row = Stretches::within($curve->stretchesWithin($span), $span->from, $span->to);
            if ([] !== $row) {
                $product = null === $product ? $row : Stretches::product($product, $row);
            }
        }

        return $product;
    }
}
