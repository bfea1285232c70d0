<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Level\Decibels;

/** Mutes of a track over time. Before the first switch it is heard. */
final readonly class MuteLane
{
    /** Samples that a switch takes, so that it does not click: 5 ms at 48 kHz. */
    private const GLIDE = 240;

    /**
     * @param list<array{int, bool}> $switches timeline samples, strictly rising, and whether it is muted from there
     *
     * @throws InvalidMix
     */
    public function __construct(public array $switches = [])
    {
        \count($switches) <= PanLane::MAX_POINTS || throw InvalidMix::tooMany('mute switches', PanLane::MAX_POINTS);
        $last = -1;
        foreach ($switches as [$at]) {
            $at > $last || throw InvalidMix::notRising('mute');
            $last = $at;
        }
    }

    public function isEmpty(): bool
    {
        return [] === $this->switches;
    }

    public function at(int $position): bool
    {
        $muted = false;
        foreach ($this->switches as [$at, $muting]) {
            if ($at > $position) {
                break;
            }
            $muted = $muting;
        }

        return $muted;
    }

    /**
     * With other switches from one moment to another; from the end on it is as it was, and no switch is left that changes nothing.
     *
     * @param int $from timeline sample
     * @param list<array{int, bool}> $switches within
     * @param int $to timeline sample from which it is as before
     */
    public function written(int $from, array $switches, int $to): self
    {
        $before = array_filter($this->switches, static fn (array $switch): bool => $switch[0] < $from);
        $after = array_filter($this->switches, static fn (array $switch): bool => $switch[0] > $to);
        $kept = [];
        $muted = false;
        foreach ([...$before, ...$switches, [$to, $this->at($to)], ...$after] as [$at, $muting]) {
            if ($muting !== $muted) {
                $kept[] = [$at, $muting];
                $muted = $muting;
            }
        }

        return new self($kept);
    }

    /** Its gain over time: 0 dB where it is heard, silence where it is not. */
    public function curve(): Curve
    {
        $keyframes = [];
        $muted = false;
        foreach ($this->switches as $i => [$at, $muting]) {
            if ($muting === $muted) {
                continue;
            }
            $next = $this->switches[$i + 1][0] ?? \PHP_INT_MAX;
            $end = min($at + self::GLIDE, $next - 1);
            $keyframes[] = new Keyframe($at, self::level($muted), $end > $at ? Ramp::line() : Ramp::hold());
            if ($end > $at) {
                $keyframes[] = new Keyframe($end, self::level($muting), Ramp::hold());
            }
            $muted = $muting;
        }

        return Curve::of($keyframes);
    }

    private static function level(bool $muted): Decibels
    {
        return $muted ? Decibels::silence() : Decibels::unchanged();
    }
}
