<?php

declare(strict_types=1);

namespace Wattage\Core\Curve\Internal;

use Wattage\Core\Curve\Ease;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Level\Decibels;

/**
 * What lies between two neighbouring keyframes: its level at each moment, its exact halves, its stretches.
 *
 * @internal
 */
final readonly class Segment
{
    private RampKind $kind;

    public function __construct(private Keyframe $first, private Keyframe $last)
    {
        $touchesSilence = $first->level->isSilence() || $last->level->isSilence();
        $kind = $first->ramp->kind;
        $this->kind = $touchesSilence && RampKind::Hold !== $kind ? RampKind::Gain : $kind;
    }

    /** @param int $position within [first, last) */
    public function levelAt(int $position): Decibels
    {
        $x = ($position - $this->first->position) / ($this->last->position - $this->first->position);
        if (RampKind::Hold === $this->kind || 0.0 === (float) $x) {
            return $this->first->level;
        }
        if (RampKind::Gain === $this->kind) {
            return Decibels::fromRatio($this->first->level->ratio() * (1.0 - $x) + $this->last->level->ratio() * $x);
        }

        return Decibels::of($this->first->level->db + $this->riseAt($x));
    }

    /**
     * The ramps left and right of a cut, such that both halves together sound as the whole did.
     *
     * @return array{Ramp, Ramp}
     */
    public function cutAt(int $position): array
    {
        $ramp = $this->first->ramp;
        if (RampKind::Gain === $this->kind) {
            return [Ramp::of(RampKind::Gain), Ramp::of(RampKind::Gain)];
        }
        if (RampKind::Smooth !== $this->kind) {
            return [$ramp, $ramp];
        }
        $x = ($position - $this->first->position) / ($this->last->position - $this->first->position);
        $middle = $ramp->windowFrom + ($ramp->windowTo - $ramp->windowFrom) * $x;
        if ($middle <= $ramp->windowFrom || $middle >= $ramp->windowTo) {
            return [Ramp::line(), Ramp::line()]; // the window is too narrow to cut: straight to the last bit
        }

        return [
            Ramp::smooth($ramp->easeOut, $ramp->easeIn, $ramp->windowFrom, $middle, $ramp->tilt * $x),
            Ramp::smooth($ramp->easeOut, $ramp->easeIn, $middle, $ramp->windowTo, $ramp->tilt * (1.0 - $x)),
        ];
    }

    /** @return list<Stretch> covering [first, last) */
    public function stretches(): array
    {
        [$from, $to] = [$this->first->position, $this->last->position];
        $level = $this->first->level;
        if (RampKind::Hold === $this->kind) {
            return [Stretch::decibels($from, $to, $level->db)];
        }
        if (RampKind::Gain === $this->kind) {
            return [Stretch::gain($from, $to, $level->ratio(), $this->last->level->ratio())];
        }
        if (RampKind::Line === $this->kind || abs($this->bend()) < 1e-9) {
            return [Stretch::decibels($from, $to, $level->db, $this->last->level->db - $level->db)];
        }

        return $this->parabolas();
    }

    private function bend(): float
    {
        return $this->last->level->db - $this->first->level->db - $this->first->ramp->tilt;
    }

    /** Rise above the first keyframe in dB, at x along the segment, 0…1. */
    private function riseAt(float $x): float
    {
        $ramp = $this->first->ramp;
        if (RampKind::Line === $this->kind) {
            return ($this->last->level->db - $this->first->level->db) * $x;
        }
        $low = Ease::at($ramp->windowFrom, $ramp->easeOut, $ramp->easeIn);
        $span = Ease::at($ramp->windowTo, $ramp->easeOut, $ramp->easeIn) - $low;
        $u = $ramp->windowFrom + ($ramp->windowTo - $ramp->windowFrom) * $x;
        $s = $span > 0.0 ? (Ease::at($u, $ramp->easeOut, $ramp->easeIn) - $low) / $span : $x;

        return $ramp->tilt * $x + $this->bend() * $s;
    }

    /**
     * The S cut where its parabolas meet; each part is fitted through its ends and its middle, which for a parabola is exact.
     *
     * @return list<Stretch>
     */
    private function parabolas(): array
    {
        $ramp = $this->first->ramp;
        $length = $this->last->position - $this->first->position;
        $cuts = [0];
        foreach ([$ramp->easeOut, 1.0 - $ramp->easeIn] as $u) {
            $cut = (int) round(($u - $ramp->windowFrom) / ($ramp->windowTo - $ramp->windowFrom) * $length);
            if ($cut > end($cuts) && $cut < $length) {
                $cuts[] = $cut;
            }
        }
        $cuts[] = $length;
        $stretches = [];
        for ($i = 1, $n = \count($cuts); $i < $n; ++$i) {
            [$start, $end] = [$cuts[$i - 1], $cuts[$i]];
            $a = $this->riseAt($start / $length);
            $m = $this->riseAt(($start + $end) / 2.0 / $length);
            $z = $this->riseAt($end / $length);
            $bend = 2.0 * ($a + $z - 2.0 * $m);
            $stretches[] = Stretch::decibels(
                $this->first->position + $start,
                $this->first->position + $end,
                $this->first->level->db + $a,
                $z - $a - $bend,
                abs($bend) < 1e-9 ? 0.0 : $bend,
            );
        }

        return $stretches;
    }
}
