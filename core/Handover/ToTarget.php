<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Closure;
use Generator;
use Iterator;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\SampleMeter;

/**
 * Brings a measured sound to a target: by one gain for all of it, and by a peak guard where peaks would then pass the ceiling. What the
 * guard takes away is made up for: the result is measured, and made again until it is near enough, or nothing more helps.
 */
final class ToTarget
{
    /** LU; half of what is promised. */
    private const NEAR = 0.05;
    private const TRIES = 6;

    /** LU that a dB of gain adds, at least. */
    private const LEAST_KEPT = 0.2;

    /** dB beyond the plain gain: what needs more must be tamed in the mix. */
    private const MOST_MADE_UP = 6.0;

    /** dB */
    public float $gain = 0.0;
    private float $plain = 0.0;

    /** What came out, and what the guard did for it; once it is written. */
    public Loudness $result;
    public GuardActs $acts;

    /**
     * @param ?Loudness $measured the sound as it is; not needed where no loudness is to be reached
     * @param int $channels 1 or 2
     * @param int $rate samples per second, of which 100 ms are a whole number
     *
     * @throws InvalidTarget
     */
    public function __construct(public readonly Target $target, ?Loudness $measured, private readonly int $channels, private readonly int $rate)
    {
        $this->acts = new GuardActs($rate);
        if (null !== $target->loudness) {
            $this->gain = $this->plain = $target->loudness - ($measured->integrated ?? throw InvalidTarget::silence());
        }
    }

    /**
     * @param Closure(): iterable<array<int, float>> $sound pieces of 100 ms, interleaved; gone through once for each try
     * @param Closure(): (Closure(array<int, float>): void) $begin begins what is written anew, and tells where its samples go
     * @param ?Closure(): Iterator<array<int, float>> $along a part of the sound in the same pieces, such as a stem: it is written instead, with
     *                                                       the gain and the guard of the whole, and what is measured is the whole
     *
     * @return Generator<int> frames that were gone through, for each piece; it begins again with each try
     */
    public function write(Closure $sound, Closure $begin, ?Closure $along = null): Generator
    {
        $last = null;
        for ($try = 1;; ++$try) {
            yield from $this->once($sound(), $begin(), null === $along ? null : $along());
            $found = $this->result->integrated;
            if (null === $this->target->loudness || null === $found || abs($this->target->loudness - $found) <= self::NEAR || $try >= self::TRIES) {
                return;
            }
            // A guard gives back less than what is added, the less the harder it works: how much less, the last two tries say.
            $kept = null === $last || abs($this->gain - $last[0]) < 1e-6 ? 0.8 : min(1.0, max(self::LEAST_KEPT, ($found - $last[1]) / ($this->gain - $last[0])));
            $last = [$this->gain, $found];
            $this->gain = min($this->plain + self::MOST_MADE_UP, $this->gain + ($this->target->loudness - $found) / $kept);
            if ($this->gain === $last[0]) {
                return;
            }
        }
    }

    /**
     * @param iterable<array<int, float>> $sound
     * @param Closure(array<int, float>): void $take
     * @param ?Iterator<array<int, float>> $along
     *
     * @return Generator<int>
     */
    private function once(iterable $sound, Closure $take, ?Iterator $along): Generator
    {
        $meter = new SampleMeter($this->channels, $this->rate);
        $ceiling = null === $this->target->truePeak ? null : 10.0 ** ($this->target->truePeak / 20.0);
        $guard = null === $ceiling ? null : new PeakGuard($this->channels, $this->rate, $ceiling);
        $partGuard = null === $ceiling || null === $along ? null : new PeakGuard($this->channels, $this->rate, $ceiling);
        $gain = 10.0 ** ($this->gain / 20.0);
        $frames = 0;
        foreach ($sound as $samples) {
            $frames += intdiv(\count($samples), $this->channels);
            $samples = self::times($gain, $samples);
            $part = null === $along ? null : self::times($gain, $along->current());
            $along?->next();
            $meter->push($whole = null === $guard ? $samples : $guard->push($samples));
            null === $part ? $take($whole) : $take(null === $partGuard ? $part : $partGuard->push($samples, $part));
            yield $frames;
        }
        if (null !== $guard) {
            $meter->push($whole = $guard->finish());
            $take(null === $partGuard ? $whole : $partGuard->finish());
            $this->acts = $guard->acts;
        }
        $this->result = $meter->finish();
    }

    /**
     * @param array<int, float> $samples
     *
     * @return array<int, float>
     */
    private static function times(float $gain, array $samples): array
    {
        if (1.0 !== $gain) {
            foreach ($samples as $i => $sample) {
                $samples[$i] = $gain * $sample;
            }
        }

        return $samples;
    }
}
