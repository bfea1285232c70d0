<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

use Wattage\Core\Curve\Internal\Segment;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/**
 * Level over time: keyframes at strictly rising positions, joined by their ramps. Before the first and after the last
 * keyframe the level stays; without keyframes it is 0 dB.
 */
final readonly class Curve
{
    public const MAX_KEYFRAMES = 100_000;

    /** @param list<Keyframe> $keyframes positions strictly rising */
    private function __construct(public array $keyframes)
    {
    }

    /** @return self always one and the same */
    public static function flat(): self
    {
        /** @var ?self $flat */
        static $flat = null;

        return $flat ??= new self([]);
    }

    /**
     * @param list<Keyframe> $keyframes
     *
     * @throws InvalidCurve when not rising, or too many
     */
    public static function of(array $keyframes): self
    {
        if (\count($keyframes) > self::MAX_KEYFRAMES) {
            throw InvalidCurve::tooMany(self::MAX_KEYFRAMES);
        }
        $previous = -1;
        foreach ($keyframes as $keyframe) {
            $keyframe->position > $previous || throw InvalidCurve::notRising($keyframe->position);
            $previous = $keyframe->position;
        }

        return new self($keyframes);
    }

    public function isFlat(): bool
    {
        return [] === $this->keyframes;
    }

    public function levelAt(int $position): Decibels
    {
        $i = $this->lastIndexAtOrBefore($position);
        if ($i < 0) {
            return $this->isFlat() ? Decibels::unchanged() : $this->keyframes[0]->level;
        }
        $next = $this->keyframes[$i + 1] ?? null;

        return null === $next ? $this->keyframes[$i]->level : (new Segment($this->keyframes[$i], $next))->levelAt($position);
    }

    /**
     * The same at many places, walked along once.
     *
     * @param list<int> $positions rising
     *
     * @return list<float> dB at each
     */
    public function levelsAt(array $positions): array
    {
        $levels = [];
        $segment = null;
        $next = 0;
        foreach ($positions as $position) {
            while (isset($this->keyframes[$next]) && $this->keyframes[$next]->position <= $position) {
                ++$next;
                $segment = null;
            }
            if (0 === $next || !isset($this->keyframes[$next])) {
                $levels[] = ($this->keyframes[max(0, $next - 1)] ?? null)?->level->db ?? 0.0;
            } else {
                $segment ??= new Segment($this->keyframes[$next - 1], $this->keyframes[$next]);
                $levels[] = $segment->levelAt($position)->db;
            }
        }

        return $levels;
    }

    /**
     * Index of the keyframe exactly at a position.
     *
     * @throws InvalidCurve when there is none
     */
    public function indexOf(int $position): int
    {
        $i = $this->lastIndexAtOrBefore($position);

        return $i >= 0 && $this->keyframes[$i]->position === $position ? $i : throw InvalidCurve::noKeyframe($position);
    }

    public function hasKeyframeAt(int $position): bool
    {
        $i = $this->lastIndexAtOrBefore($position);

        return $i >= 0 && $this->keyframes[$i]->position === $position;
    }

    /** Adds a keyframe without changing the level anywhere. The same curve when one stands there already. */
    public function withKeyframeAt(int $position): self
    {
        if ($this->hasKeyframeAt($position)) {
            return $this;
        }
        $i = $this->lastIndexAtOrBefore($position);
        $level = $this->levelAt($position);
        $keyframes = $this->keyframes;
        $ramp = Ramp::line();
        if ($i >= 0 && isset($keyframes[$i + 1])) {
            [$left, $ramp] = (new Segment($keyframes[$i], $keyframes[$i + 1]))->cutAt($position);
            $keyframes[$i] = $keyframes[$i]->withRamp($left);
        }
        array_splice($keyframes, $i + 1, 0, [new Keyframe($position, $level, $ramp)]);

        return self::of($keyframes);
    }

    /**
     * As withKeyframeAt() for many at once, in one pass.
     *
     * @param list<int> $positions rising
     */
    public function withKeyframesAt(array $positions): self
    {
        if ($this->isFlat()) {
            return new self(array_map(static fn (int $at): Keyframe => new Keyframe($at, Decibels::unchanged(), Ramp::line()), $positions));
        }
        $keyframes = [];
        $next = 0;
        $n = \count($positions);
        foreach ($this->keyframes as $i => $keyframe) {
            for (; $next < $n && $positions[$next] < $keyframe->position && 0 === $i; ++$next) {
                $keyframes[] = new Keyframe($positions[$next], $keyframe->level, Ramp::line());
            }
            $after = $this->keyframes[$i + 1] ?? null;
            $next += $next < $n && $positions[$next] === $keyframe->position ? 1 : 0;
            for (; $next < $n && (null === $after || $positions[$next] < $after->position); ++$next) {
                $at = $positions[$next];
                [$left, $right] = null === $after ? [Ramp::line(), Ramp::line()] : (new Segment($keyframe, $after))->cutAt($at);
                $level = null === $after ? $keyframe->level : (new Segment($keyframe, $after))->levelAt($at);
                $keyframes[] = $keyframe->withRamp($left);
                $keyframe = new Keyframe($at, $level, $right);
            }
            $keyframes[] = $keyframe;
        }

        return self::of($keyframes);
    }

    /** @throws InvalidCurve when there is no keyframe at one of the positions */
    public function without(int ...$positions): self
    {
        $gone = array_fill_keys(array_map($this->indexOf(...), $positions), true);
        /** @var list<Keyframe> $kept */
        $kept = [];
        foreach ($this->keyframes as $i => $keyframe) {
            if (!isset($gone[$i])) {
                $kept[] = $keyframe;
                continue;
            }
            $previous = array_pop($kept);
            if (null !== $previous) {
                $before = $previous->ramp;
                $kept[] = $previous->withRamp($before->continuesIn($keyframe->ramp) ? $before->joinedWith($keyframe->ramp) : $before->whole());
            }
        }

        return new self($kept);
    }

    /** @return list<Keyframe> those earlier than a position */
    public function before(int $position): array
    {
        return array_values(array_filter($this->keyframes, static fn (Keyframe $k): bool => $k->position < $position));
    }

    /** @return list<Keyframe> those at a position or later */
    public function from(int $position): array
    {
        return array_values(array_filter($this->keyframes, static fn (Keyframe $k): bool => $k->position >= $position));
    }

    /** The part over [$from, $to], with the same level everywhere in it and none of the keyframes outside. */
    public function within(int $from, int $to): self
    {
        $first = $this->keyframes[0] ?? null;
        $last = $this->keyframes[\count($this->keyframes) - 1] ?? null;
        if (null === $first || null === $last || ($first->position >= $from && $last->position <= $to)) {
            return $this;
        }
        $framed = $first->position < $from ? $this->withKeyframeAt($from) : $this;
        $framed = $last->position > $to ? $framed->withKeyframeAt($to) : $framed;

        return new self(array_values(array_filter($framed->keyframes, static fn (Keyframe $k): bool => $k->position >= $from && $k->position <= $to)));
    }

    /** The same curve, so many samples later. */
    public function shifted(int $by): self
    {
        return 0 === $by ? $this : self::of(array_map(static fn (Keyframe $k): Keyframe => $k->at($k->position + $by), $this->keyframes));
    }

    /** The same curve, so many samples later; what would come before the beginning of time stands as its level there. */
    public function shiftedWithin(int $by): self
    {
        return $by >= 0 || $this->isFlat() || $this->keyframes[0]->position + $by >= 0 ? $this->shifted($by) : $this->within(-$by, max(-$by, $this->keyframes[\count($this->keyframes) - 1]->position))->shifted($by);
    }

    /**
     * Puts $replacement in the place of keyframe number $index; never past its neighbours.
     *
     * @throws InvalidCurve
     */
    public function replacing(int $index, Keyframe $replacement): self
    {
        $keyframes = $this->keyframes;
        $keyframes[$index] = $replacement;

        return self::of(array_values($keyframes));
    }

    /**
     * The level over a span, as stretches that follow one another without gap.
     *
     * @return non-empty-list<Stretch> the first starts at or before $span->from, the last ends at or after $span->to
     */
    public function stretchesWithin(Span $span): array
    {
        if ($this->isFlat()) {
            return [Stretch::decibels($span->from, $span->to, 0.0)];
        }
        $first = $this->keyframes[0];
        $last = $this->keyframes[\count($this->keyframes) - 1];
        $stretches = [];
        if ($span->from < $first->position) {
            $stretches[] = Stretch::decibels($span->from, min($first->position, $span->to), $first->level->db);
        }
        $n = \count($this->keyframes);
        for ($i = max(0, $this->lastIndexAtOrBefore($span->from)); $i + 1 < $n && $this->keyframes[$i]->position < $span->to; ++$i) {
            foreach ((new Segment($this->keyframes[$i], $this->keyframes[$i + 1]))->stretches() as $stretch) {
                if ($stretch->to > $span->from && $stretch->from < $span->to) {
                    $stretches[] = $stretch;
                }
            }
        }
        if ($span->to > $last->position) {
            $stretches[] = Stretch::decibels(max($last->position, $span->from), $span->to, $last->level->db);
        }

        return [] === $stretches ? [Stretch::decibels($span->from, $span->to, $last->level->db)] : $stretches;
    }

    private function lastIndexAtOrBefore(int $position): int
    {
        $low = 0;
        $high = \count($this->keyframes);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($this->keyframes[$middle]->position <= $position) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low - 1;
    }
}
