<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Curve\Stretch;
use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Reach;
use Wattage\Core\Render\ColouredSound;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;

/** Where a clip may be above a ceiling: told by the outline of its source and the highest gains, and, where filters lie between, by the filtered sound there. */
final readonly class LoudMoments
{
    /** Loud moments closer than this belong together: 60 ms, in points of the outline. */
    private const TOGETHER = 3;

    /** Points of 20 ms. */
    private const POINTS_PER_SECOND = 50;
    /** Half an hour. */
    private const POINTS_AT_ONCE = 90_000;

    /** So many times as much of a coloured clip may have to be listened to. */
    private const MORE_COLOURED = 10;
    /** Points for which filters go on sounding: 100 ms. */
    private const RINGING = 5;

    /**
     * @param list<array{Routing, non-empty-list<Stretch>}> $parts how the clip is heard, gains included
     * @param list<Biquad> $biquads what $coloured goes through
     * @param float $ceiling dBFS
     * @param int $most seconds that are looked for: where there is far more, it need not be counted to the end
     */
    public function __construct(private array $parts, private ?ColouredSound $coloured, private array $biquads, private float $ceiling, private int $rate, private int $most)
    {
    }

    /**
     * @param string $outline uint16 (little-endian) for every 20 ms of the source, 32768 = full scale
     * @param Span $span what to search, in source samples
     *
     * @return list<Span>
     */
    public function in(string $outline, Span $span): array
    {
        $frames = intdiv($this->rate, self::POINTS_PER_SECOND);
        $first = intdiv($span->from, $frames);
        $count = min(intdiv($span->to - 1, $frames) + 1, intdiv(\strlen($outline), 2)) - $first;
        $enough = self::POINTS_PER_SECOND * $this->most * (null === $this->coloured ? 2 : self::MORE_COLOURED);
        $hot = [];
        // Once far more is too loud than peaks are, it need not be counted to the end.
        for ($at = $first; $at < $first + $count && \count($hot) <= $enough; $at += self::POINTS_AT_ONCE) {
            $some = min(self::POINTS_AT_ONCE, $first + $count - $at);
            /** @var array<int, int> $points */
            $points = unpack('v*', substr($outline, 2 * $at, 2 * $some));
            $hot += $this->hot(null === $this->coloured ? $points : $this->lifted($points), $at, $some, $frames);
        }
        $moments = $this->joined(array_keys($hot), $frames, $span);

        return null === $this->coloured || \count($hot) > $enough ? $moments : $this->trulyHot($this->coloured, $moments, $frames, $span);
    }

    /**
     * @param array<int, int|float> $points of the outline, from 1
     *
     * @return array<int, true> numbers of the points at which it may be too loud
     */
    private function hot(array $points, int $first, int $count, int $frames): array
    {
        $hot = [];
        $limit = 32768.0 * 10.0 ** ($this->ceiling / 20.0);
        foreach ($this->loudest($first, $count, $frames) as [$from, $to, $gain]) {
            $threshold = $gain > 0.0 ? $limit / $gain - 1.0 : \INF;
            for ($i = $from; $i < $to; ++$i) {
                if ($points[$i - $first + 1] >= $threshold) {
                    $hot[$i] = true;
                }
            }
        }

        return $hot;
    }

    /**
     * What filters could make of an outline is far more than they do: so they are listened to wherever it could be too loud.
     *
     * @param list<Span> $moments
     *
     * @return list<Span>
     */
    private function trulyHot(ColouredSound $coloured, array $moments, int $frames, Span $span): array
    {
        $hot = [];
        foreach ($moments as $moment) {
            $first = intdiv($moment->from, $frames);
            $points = [];
            for ($at = $moment->from; $at < $moment->to; $at = $end) {
                $number = intdiv($at, $frames);
                $end = min($moment->to, ($number + 1) * $frames);
                $points[$number - $first + 1] = 32768.0 * max([0.0, ...array_map(abs(...), $coloured->samples($at, $end - $at))]);
            }
            $hot += $this->hot($points, $first, \count($points), $frames);
        }

        return $this->joined(array_keys($hot), $frames, $span);
    }

    /**
     * How high filters can make each point at most, after those before it.
     *
     * @param array<int, int> $points
     *
     * @return array<int, float>
     */
    private function lifted(array $points): array
    {
        $reach = Reach::of($this->biquads);
        $lifted = [];
        foreach ($points as $i => $point) {
            for ($back = 1; $back <= self::RINGING; ++$back) {
                $point = max($point, $points[$i - $back] ?? 0);
            }
            $lifted[$i] = $reach * $point;
        }

        return $lifted;
    }

    /**
     * Upper bounds of the gain of all parts together.
     *
     * @return list<array{int, int, float}> first point, last point + 1, gain
     */
    private function loudest(int $first, int $count, int $frames): array
    {
        if (1 === \count($this->parts)) {
            return $this->bounds($this->parts[0], $first, $count, $frames);
        }
        $sums = array_fill($first, $count, 0.0);
        foreach ($this->parts as $part) {
            foreach ($this->bounds($part, $first, $count, $frames) as [$from, $to, $gain]) {
                for ($i = $from; $i < $to; ++$i) {
                    $sums[$i] += $gain;
                }
            }
        }

        return array_map(static fn (int $i): array => [$i, $i + 1, $sums[$i]], array_keys($sums));
    }

    /**
     * @param array{Routing, non-empty-list<Stretch>} $part
     *
     * @return list<array{int, int, float}>
     */
    private function bounds(array $part, int $first, int $count, int $frames): array
    {
        [$r, $stretches] = $part;
        $spread = max(abs($r->leftToLeft) + abs($r->rightToLeft), abs($r->leftToRight) + abs($r->rightToRight));
        // A straight routing never adds the channels.
        $spread = $r->isStraight() ? 1.0 : $spread;
        $bounds = [];
        foreach ($stretches as $stretch) {
            $from = max($first, intdiv($stretch->from, $frames));
            $to = min($first + $count, intdiv($stretch->to - 1, $frames) + 1);
            if ($stretch->isConstant() && $from < $to) {
                $bounds[] = [$from, $to, $spread * $stretch->gainAt($stretch->from)];
                continue;
            }
            for ($i = $from; $i < $to; ++$i) {
                $bounds[] = [$i, $i + 1, $spread * self::highestWithin($stretch, $i * $frames, ($i + 1) * $frames)];
            }
        }

        return $bounds;
    }

    /** Over 20 ms every shape is near enough to straight for its ends and middle, with a little to spare. */
    private static function highestWithin(Stretch $stretch, int $from, int $to): float
    {
        $from = max($from, $stretch->from);
        $to = min($to, $stretch->to);

        return 1.05 * max($stretch->gainAt($from), $stretch->gainAt(intdiv($from + $to, 2)), $stretch->gainAt($to));
    }

    /**
     * @param list<int> $hot numbers of points, not in order
     *
     * @return list<Span>
     */
    private function joined(array $hot, int $frames, Span $span): array
    {
        sort($hot);
        $moments = [];
        $start = null;
        $last = 0;
        foreach ([...$hot, \PHP_INT_MAX] as $point) {
            if (null !== $start && $point - $last > self::TOGETHER) {
                $moments[] = Span::of(max($span->from, $start * $frames), max(min($span->to, ($last + 1) * $frames), $span->from + 1));
                $start = null;
            }
            $start ??= $point;
            $last = $point;
        }

        return $moments;
    }
}
