<?php

declare(strict_types=1);

namespace Wattage\Core\Ride;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Thinning;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\MuteLane;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Track;

/** Puts what was ridden into the lanes of a track. All that the pass does not write stays exactly as it was. */
final readonly class Merge
{
    /** dB; a fader at its lower end is silent. */
    public const FADER_BOTTOM = -60.0;

    /** Samples between what was and what was written, so that it does not click: 10 ms at 48 kHz. */
    private const JOINT = 480;

    /** Samples without word of a hand after which it rested: 100 ms at 48 kHz. While it moves, word comes several times as often. */
    public const REST = 4800;

    /** dB, and seconds. */
    public const MOST_TOLERANCE = 6.0;
    public const USUAL_TOLERANCE = 0.25;
    public const WIDEST_SPACING = 0.5;
    public const USUAL_SPACING = 0.1;
    public const LONGEST_GLIDE = 5.0;
    public const USUAL_GLIDE = 0.2;

    private const PAN_TOLERANCE = 0.02;

    /**
     * @param float $tolerance dB that the lane may differ from what was ridden
     * @param int $spacing samples that keyframes are kept apart, except where the sound steps and the tolerance needs two
     * @param int $glide samples in which a touched control goes back to its lane
     * @param bool $apart whether the spacing holds, and the tolerance gives way as far as that takes
     */
    public function __construct(private float $tolerance, private int $spacing, private int $glide, private bool $apart = false)
    {
    }

    /** @return float dB by which the lane may differ from what was ridden in a pass: the tolerance, or more where the spacing holds */
    public function reach(Pass $pass): float
    {
        $samples = Sample::forward($pass->level, $pass->start, $pass->stop, self::FADER_BOTTOM, Decibels::MAX_FADER);
        $reached = [$this->tolerance];
        foreach ($this->apart ? Stretches::of($pass->mode, $samples, $pass->start, $pass->stop) : [] as [$from, $to, $ridden]) {
            $reached[] = $this->thinned(self::points($ridden, $from, $to), $this->tolerance)[1];
        }

        return max($reached);
    }

    /**
     * @param list<array{int, float}> $points
     *
     * @return array{list<array{int, float}>, float}
     */
    private function thinned(array $points, float $tolerance): array
    {
        return $this->apart
            ? Thinning::apart($points, $tolerance, $this->spacing, self::JOINT)
            : [Thinning::of($points, $tolerance, $this->spacing), $tolerance];
    }

    public function into(Track $track, Pass $pass): Lanes
    {
        $lanes = $track->lanes->withOff(false);
        $samples = Sample::forward($pass->level, $pass->start, $pass->stop, self::FADER_BOTTOM, Decibels::MAX_FADER);
        foreach (Stretches::of($pass->mode, $samples, $pass->start, $pass->stop) as [$from, $to, $ridden]) {
            $base = $track->withLanes($lanes)->levels();
            $lanes = $lanes->withLevel($this->level($base, $from, $to, $ridden, $this->way($pass->mode)));
        }
        $samples = Sample::forward($pass->pan, $pass->start, $pass->stop, -1.0, 1.0);
        foreach (Stretches::of($pass->mode, $samples, $pass->start, $pass->stop) as [$from, $to, $ridden]) {
            $base = $track->withLanes($lanes)->pans();
            $lanes = $lanes->withPan($this->pan($base, $from, $to, $ridden, $this->way($pass->mode)));
        }
        $samples = Sample::forward($pass->mute, $pass->start, $pass->stop, 0.0, 1.0);
        foreach (Stretches::of($pass->mode, $samples, $pass->start, $pass->stop) as [$from, $to, $ridden]) {
            $lanes = $lanes->withMute(self::mute($lanes->mute, $from, $to, $ridden));
        }

        return $lanes;
    }

    private function way(Mode $mode): int
    {
        return Mode::Touch === $mode ? max(self::JOINT, $this->glide) : self::JOINT;
    }

    /** @param non-empty-list<Sample> $ridden */
    private function level(Curve $old, int $from, int $to, array $ridden, int $out): Curve
    {
        $points = self::points($ridden, $from, $to);
        [$thinned] = $this->thinned($points, $this->tolerance);
        $start = max(0, $from - self::JOINT);
        $end = $to + $out;
        $framed = $old->withKeyframeAt($start)->withKeyframeAt($end)->keyframes;
        $before = array_values(array_filter($framed, static fn (Keyframe $k): bool => $k->position <= $start && $k->position < $from));
        $last = array_pop($before);
        null === $last || $before[] = $last->withRamp(Ramp::line());
        $after = array_values(array_filter($framed, static fn (Keyframe $k): bool => $k->position >= $end));
        $written = array_map(static fn (array $p): Keyframe => new Keyframe($p[0], $p[1] <= self::FADER_BOTTOM ? Decibels::silence() : Decibels::of($p[1]), Ramp::line()), $thinned);

        return Curve::of([...$before, ...$written, ...$after]);
    }

    /** @param non-empty-list<Sample> $ridden */
    private function pan(PanLane $old, int $from, int $to, array $ridden, int $out): PanLane
    {
        [$thinned] = $this->thinned(self::points($ridden, $from, $to), self::PAN_TOLERANCE);
        $start = max(0, $from - self::JOINT);
        $end = $to + $out;
        $before = $start < $from ? [[$start, $old->at($start)]] : [];

        return $old->written($start, [...$before, ...$thinned, [$end, $old->at($end)]], $end);
    }

    /** @param non-empty-list<Sample> $ridden */
    private static function mute(MuteLane $old, int $from, int $to, array $ridden): MuteLane
    {
        $switches = array_map(static fn (array $point): array => [$point[0], $point[1] >= 0.5], self::points($ridden, $from, $to));

        return $old->written($from, $switches, $to + 1);
    }

    /**
     * What sounded: while the hand moved, a line from sample to sample; where it rested, its level until it moved again. Samples
     * that come within the time that the sound takes to follow are one: the last of them.
     *
     * @param non-empty-list<Sample> $ridden
     *
     * @return non-empty-list<array{int, float}> from the first moment written to the last
     */
    private static function points(array $ridden, int $from, int $to): array
    {
        [$at, $value] = [$from, $ridden[0]->value];
        $points = [[$from, $value]];
        foreach ($ridden as $sample) {
            [$before] = $points[\count($points) - 1];
            if ($sample->at - $before < self::JOINT) {
                array_pop($points);
                $points[] = [$before, $sample->value];
            } else {
                if ($sample->at - $at > self::REST && $sample->value !== $value) {
                    $points[] = [$sample->at - self::JOINT, $value];
                }
                $points[] = [$sample->at, $sample->value];
            }
            [$at, $value] = [$sample->at, $sample->value];
        }
        if ($points[\count($points) - 1][0] < $to) {
            $points[] = [$to, $value];
        }

        return $points;
    }
}
