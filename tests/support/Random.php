<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Random\Engine\Mt19937;
use Random\Randomizer;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Level\Decibels;

/** Random cases that are the same in every run. */
final class Random
{
    private readonly Randomizer $random;

    public function __construct(int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    public function int(int $min, int $max): int
    {
        return $this->random->getInt($min, $max);
    }

    public function float(float $min, float $max): float
    {
        return $min + ($max - $min) * $this->random->getInt(0, 1_000_000) / 1_000_000;
    }

    /** Keyframes of every kind within [0, $length), some silent when $silence. */
    public function curve(int $length, bool $silence = false): Curve
    {
        $positions = [];
        for ($n = $this->int(0, 9); $n > 0; --$n) {
            $positions[$this->int(0, $length - 1)] = true;
        }
        ksort($positions);
        $keyframes = [];
        foreach (array_keys($positions) as $position) {
            $level = $silence && 0 === $this->int(0, 4) ? Decibels::silence() : Decibels::of($this->float(-40.0, 4.0));
            $keyframes[] = new Keyframe($position, $level, $this->ramp());
        }

        return Curve::of($keyframes);
    }

    private function ramp(): Ramp
    {
        $kind = RampKind::cases()[$this->int(0, 3)];
        if (RampKind::Smooth !== $kind) {
            return Ramp::of($kind);
        }
        $out = $this->float(0.0, 1.0);

        return Ramp::smooth($out, $this->float(0.0, 1.0 - $out));
    }
}
