<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Curve\Notch;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Reach;
use Wattage\Core\Render\ColouredSound;
use Wattage\Core\Render\Part;
use Wattage\Core\Render\PcmSource;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;

/**
 * Finds where a clip rises above a ceiling, and how to bring it down there.
 *
 * The outline of the source (highest sample of every 20 ms) tells where to look; only there the sound itself is read, so that
 * an hour is searched in a blink and what is found is exact to the sample.
 */
final class Peaks
{
    /** Loud moments closer than this belong together: 60 ms, in points of the outline. */
    private const TOGETHER = 3;

    /** Points of 20 ms. */
    private const POINTS_PER_SECOND = 50;

    /** A notch falls and rises for at least 5 ms each, so that it does not click, and at most for a quarter of a second. */
    private const SHORTEST_SECONDS = 0.005;
    private const LONGEST_SECONDS = 0.25;

    /** A moment lasts when it stays above this part of its worst excess for longer than this, with no longer gap than that. */
    private const NEARLY = 0.6;
    private const LASTING_SECONDS = 0.06;
    private const LONGEST_GAP_SECONDS = 0.03;

    /** Left-over excess that is not worth a notch of its own. dB */
    private const TOLERANCE = 0.05;
    private const MOST_PER_MOMENT = 12;

    /** Where more than this is too loud, it is not peaks that need to be tamed. Seconds. */
    private const MOST_SECONDS = 60;
    /** Half an hour. */
    private const POINTS_AT_ONCE = 90_000;

    /** So many times as much of a coloured clip may have to be listened to. */
    private const MORE_COLOURED = 10;
    /** Points for which filters go on sounding: 100 ms. */
    private const RINGING = 5;

    /** @var list<Span> where the sound may be above the ceiling */
    private readonly array $moments;
    private readonly ?ColouredSound $coloured;

    /**
     * @param list<array{Routing, non-empty-list<Stretch>}> $parts how the clip is heard, gains included
     * @param string $outline as {@see above()} takes it
     * @param list<Biquad> $biquads
     */
    private function __construct(private readonly array $parts, string $outline, private readonly PcmSource $sound, private readonly array $biquads, Span $span, private readonly float $ceiling, private readonly int $rate)
    {
        $this->coloured = [] === $biquads ? null : new ColouredSound($sound, $biquads);
        $this->moments = $this->moments($outline, $span);
    }

    /**
     * Looks where it may be too loud; the sound itself is not read yet.
     *
     * @param list<Part> $parts how the clip is heard
     * @param string $outline uint16 (little-endian) for every 20 ms of the source, 32768 = full scale
     * @param Span $span what to search, in source samples
     * @param float $ceiling dBFS
     * @param list<Biquad> $biquads the colour of the clip, which comes before its gains
     */
    public static function above(array $parts, string $outline, PcmSource $sound, Span $span, float $ceiling, int $rate, array $biquads = []): self
    {
        return new self(array_map(static fn (Part $part): array => [$part->routing, $part->heard()], $parts), $outline, $sound, $biquads, $span, $ceiling, $rate);
    }

    /**
     * @param list<self> $searches of clips that are looked through together
     *
     * @throws InvalidCeiling when so much is above it that those are not peaks
     */
    public static function areFew(array $searches): void
    {
        $seconds = array_sum(array_map(static fn (self $search): float => array_sum(array_map(static fn (Span $moment): int => $moment->length(), $search->moments)) / $search->rate, $searches));
        $seconds <= self::MOST_SECONDS || throw InvalidCeiling::tooLow($searches[0]->ceiling ?? 0.0);
    }

    /**
     * @return list<Peak> in the order of time
     *
     * @throws InvalidCeiling when nearly everything is above it
     */
    public function found(): array
    {
        self::areFew([$this]);

        return array_merge(...array_map($this->tamed(...), $this->moments));
    }

    /** @return list<Span> */
    private function moments(string $outline, Span $span): array
    {
        $frames = intdiv($this->rate, self::POINTS_PER_SECOND);
        $first = intdiv($span->from, $frames);
        $count = min(intdiv($span->to - 1, $frames) + 1, intdiv(\strlen($outline), 2)) - $first;
        $enough = self::POINTS_PER_SECOND * self::MOST_SECONDS * (null === $this->coloured ? 2 : self::MORE_COLOURED);
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

    /** @return list<Peak> none where the sound stays below the ceiling after all */
    private function tamed(Span $moment): array
    {
        $excess = $this->excess($moment);
        $peaks = [];
        while ([] !== $excess && \count($peaks) < self::MOST_PER_MOMENT) {
            $worst = max($excess);
            if ($worst <= ([] === $peaks ? 0.0 : self::TOLERANCE)) {
                break;
            }
            [$first, $last] = $this->loudSpan($excess, (int) array_search($worst, $excess, true), $worst);
            $notch = new Notch($first, -$worst, $this->width($excess, $first, $worst, -1), $this->width($excess, $last, $worst, 1), $last - $first);
            $peaks[] = new Peak($this->ceiling + $worst, $notch);
            foreach ($excess as $position => $over) {
                $excess[$position] = $over + $notch->differenceAt($position);
            }
        }
        usort($peaks, static fn (Peak $a, Peak $b): int => $a->notch->at <=> $b->notch->at);

        return $peaks;
    }

    /**
     * A peak is a point. What stays nearly as loud for longer is held down as a whole.
     *
     * @param array<int, float> $excess dB over the ceiling, by source sample
     *
     * @return array{int, int} first and last sample; twice the same for a point
     */
    private function loudSpan(array $excess, int $at, float $worst): array
    {
        $gap = (int) (self::LONGEST_GAP_SECONDS * $this->rate);
        $first = $last = $at;
        foreach ($excess as $position => $over) {
            if ($over > self::NEARLY * $worst && $position > $last && $position - $last <= $gap) {
                $last = $position;
            }
        }
        foreach (array_reverse($excess, true) as $position => $over) {
            if ($over > self::NEARLY * $worst && $position < $first && $first - $position <= $gap) {
                $first = $position;
            }
        }

        return $last - $first > self::LASTING_SECONDS * $this->rate ? [$first, $last] : [$at, $at];
    }

    /**
     * The narrowest side of a notch under which all near it come to the ceiling: at distance d it takes off worst·(1 − d/width).
     *
     * @param array<int, float> $excess dB over the ceiling, by source sample
     *
     * @return int samples
     */
    private function width(array $excess, int $at, float $worst, int $direction): int
    {
        $width = (int) ceil(self::SHORTEST_SECONDS * $this->rate);
        $longest = (int) (self::LONGEST_SECONDS * $this->rate);
        foreach ($excess as $position => $over) {
            $distance = ($position - $at) * $direction;
            if ($distance > 0 && $over > 0.0 && $over < $worst) {
                $width = max($width, (int) ceil($distance / (1.0 - $over / $worst)));
            }
        }

        return min($width, $longest);
    }

    /** @return array<int, float> dB over the ceiling of every sample that is, by source sample */
    private function excess(Span $moment): array
    {
        $format = $this->sound->format();
        $samples = $this->coloured?->samples($moment->from, $moment->length()) ?? PcmDecoder::decode($this->sound->read($moment->from, $moment->length()), $format);
        $limit = (null === $this->coloured ? $format->fullScale() : 1.0) * 10.0 ** ($this->ceiling / 20.0);
        $excess = [];
        $stereo = 2 === $format->channels;
        $gains = $this->gainsOver($moment);
        for ($i = 0, $n = $moment->length(); $i < $n; ++$i) {
            $left = $samples[$stereo ? 2 * $i : $i];
            $right = $samples[$stereo ? 2 * $i + 1 : $i];
            [$ll, $rl, $lr, $rr] = $gains[$i];
            $loudest = max(abs($left * $ll + $right * $rl), abs($left * $lr + $right * $rr));
            if ($loudest > $limit) {
                $excess[$moment->from + $i] = 20.0 * log10($loudest / $limit);
            }
        }

        return $excess;
    }

    /** @return list<array{float, float, float, float}> gains from each channel to each, sample by sample */
    private function gainsOver(Span $moment): array
    {
        $gains = [];
        for ($position = $moment->from; $position < $moment->to; ++$position) {
            $sum = [0.0, 0.0, 0.0, 0.0];
            foreach ($this->parts as [$r, $stretches]) {
                $gain = self::gainAt($stretches, $position);
                $sum = [$sum[0] + $gain * $r->leftToLeft, $sum[1] + $gain * $r->rightToLeft, $sum[2] + $gain * $r->leftToRight, $sum[3] + $gain * $r->rightToRight];
            }
            $gains[] = $sum;
        }

        return $gains;
    }

    /** @param non-empty-list<Stretch> $stretches */
    private static function gainAt(array $stretches, int $position): float
    {
        $low = 0;
        $high = \count($stretches) - 1;
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($stretches[$middle]->to <= $position) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $stretches[$low]->appliedGainAt($position);
    }
}
