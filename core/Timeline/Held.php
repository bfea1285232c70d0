<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;

/** Moments of a ducking lane that were corrected by hand. */
final class Held
{
    /** Samples over which the lane goes over into what is held: 100 ms at 48 kHz. */
    private const JOINT = 4800;

    /** What the rules make of it everywhere but in the moments that are held, which stay exactly as they are. */
    public static function kept(Ducking $old, Curve $new): Curve
    {
        foreach ($old->held as $span) {
            $new = self::spliced($new, $old->curve, $span);
        }

        return $new;
    }

    /** Where what is held is by now: with the speech that it was made for, or gone with it. */
    public static function following(Mix $mix, Ducking $ducking): Ducking
    {
        $moved = [];
        foreach ($ducking->held as $span) {
            $anchor = $ducking->anchors[$span->from] ?? null;
            $was = self::middle($span);
            $now = null === $anchor ? $was : $anchor->in($mix, $was);
            null === $now || $span->from + $now - $was < 0 || $moved[] = [$span, $now - $was, $anchor];
        }
        if (\count($moved) === \count($ducking->held) && [] === array_filter($moved, static fn (array $one): bool => 0 !== $one[1])) {
            return $ducking;
        }
        usort($moved, static fn (array $a, array $b): int => $a[0]->from + $a[1] <=> $b[0]->from + $b[1]);
        $held = $anchors = [];
        $curve = Curve::flat();
        foreach ($moved as [$span, $by, $anchor]) {
            $to = $span->shifted($by);
            $last = array_key_last($held);
            if (null !== $last && $held[$last]->to >= $to->from) {
                continue; // two that come together where clips do: the first stays
            }
            $held[] = $to;
            $curve = self::spliced($curve, $ducking->curve->within($span->from, $span->to - 1)->withKeyframeAt($span->from)->withKeyframeAt($span->to - 1)->shifted($by), $to);
            null === $anchor || $anchors[$to->from] = $anchor;
        }

        return new Ducking($curve, $held, $anchors);
    }

    private static function middle(Span $span): int
    {
        return intdiv($span->from + $span->to, 2);
    }

    /** The lane after a change by hand: what differs from before is held from now on. */
    public static function changed(Mix $mix, Ducking $old, Curve $curve): Ducking
    {
        $span = self::difference($old->curve, $curve);
        $held = null === $span ? $old->held : Spans::union([...$old->held, $span]);
        $anchors = [];
        foreach ($held as $one) {
            $anchor = \in_array($one, $old->held, false) ? ($old->anchors[$one->from] ?? null) : Anchor::ofSpeech($mix, self::middle($one));
            null === $anchor || $anchors[$one->from] = $anchor;
        }

        return new Ducking($curve, $held, $anchors);
    }

    /** Where the two curves differ: from the first to the last keyframe that is not in both, with the ramps that lead there and away. */
    private static function difference(Curve $a, Curve $b): ?Span
    {
        [$old, $new] = [$a->keyframes, $b->keyframes];
        $first = 0;
        while (isset($old[$first], $new[$first]) && $old[$first] == $new[$first]) {
            ++$first;
        }
        [$i, $j] = [\count($old) - 1, \count($new) - 1];
        while ($i >= $first && $j >= $first && $old[$i] == $new[$j]) {
            --$i;
            --$j;
        }
        $changed = [...\array_slice($old, $first, max(0, $i - $first + 1)), ...\array_slice($new, $first, max(0, $j - $first + 1))];
        if ([] === $changed) {
            return null;
        }
        $positions = array_map(static fn (Keyframe $k): int => $k->position, $changed);
        $from = self::reach($old[$first - 1] ?? null, [$old[$first] ?? null, $new[$first] ?? null], min($positions));
        $to = self::reach($old[$i + 1] ?? null, [$old[$i] ?? null, $new[$j] ?? null], max($positions));

        return Span::of($from, $to + 1);
    }

    /**
     * As far as a keyframe that both have, where the way from there is not level in both.
     *
     * @param list<?Keyframe> $changed next to it in the one and in the other
     */
    private static function reach(?Keyframe $neighbour, array $changed, int $position): int
    {
        $differs = null !== $neighbour && [] !== array_filter($changed, static fn (?Keyframe $k): bool => null !== $k && !$k->level->equals($neighbour->level));

        return $differs ? $neighbour->position : $position;
    }

    private static function spliced(Curve $new, Curve $old, Span $span): Curve
    {
        $from = max(0, $span->from - self::JOINT);
        $to = $span->to - 1 + self::JOINT;
        $around = $new->withKeyframeAt($from)->withKeyframeAt($to)->keyframes;
        $inside = $old->withKeyframeAt($span->from)->withKeyframeAt($span->to - 1)->keyframes;
        $before = array_values(array_filter($around, static fn (Keyframe $k): bool => $k->position <= $from && $k->position < $span->from));
        $after = array_values(array_filter($around, static fn (Keyframe $k): bool => $k->position >= $to));
        $held = array_values(array_filter($inside, static fn (Keyframe $k): bool => $k->position >= $span->from && $k->position < $span->to));
        // The ways into it and out of it are straight; what lies beyond them is not touched.
        foreach ([&$before, &$held] as &$row) {
            $last = array_pop($row);
            null === $last || $row[] = $last->withRamp(Ramp::line());
        }

        return Curve::of([...$before, ...$held, ...$after]);
    }
}
