<?php

declare(strict_types=1);

namespace Wattage\Core\Handover;

use Wattage\Core\Loudness\Overs;

/**
 * Keeps true peaks under a ceiling, of all channels together, as sound streams past. Samples that are nowhere near a peak over the
 * ceiling leave it bit for bit as they came; {@see GuardEnvelope} says how it goes down before a peak, and comes back after it.
 *
 * Source of what a true peak is: ITU-R BS.1770, Annex 2.
 */
final class PeakGuard
{
    /** How far below the ceiling it takes a peak, in dB: turning down over time adds a little between samples, as dither does. */
    private const MARGIN = 0.03;

    private readonly Overs $overs;
    private readonly GuardEnvelope $envelope;
    private readonly int $step;

    /** @var array<int, float> */
    private array $held = [];
    private int $done = 0;

    /** @var array<int, int> by step, of those that the next samples may need again */
    private array $levels = [];

    /** What it did. */
    public readonly GuardActs $acts;

    /**
     * @param int $channels 1 or 2
     * @param int $rate samples per second, of which 3000 is a divisor or nearly
     * @param float $ceiling full scale is 1
     */
    public function __construct(private readonly int $channels, int $rate, private readonly float $ceiling)
    {
        $this->step = (int) round($rate / GuardEnvelope::STEPS);
        $this->overs = new Overs($channels, $ceiling, $this->step);
        $this->envelope = new GuardEnvelope();
        $this->acts = new GuardActs($rate);
    }

    /**
     * @param array<int, float> $samples the next ones, interleaved: at least 10 ms of them, but for the last
     * @param ?array<int, float> $along a part of them, such as a stem: what is turned down instead, by as much
     *
     * @return array<int, float> those that came the time before
     */
    public function push(array $samples, ?array $along = null): array
    {
        $this->look($samples);
        $ready = $this->guarded();
        $this->held = $along ?? $samples;

        return $ready;
    }

    /** @return array<int, float> the last ones; nothing can be pushed after */
    public function finish(): array
    {
        // The sound rings on after its end.
        $this->look(array_fill(0, 12 * $this->channels, 0.0));

        return $this->guarded();
    }

    /** @param array<int, float> $samples */
    private function look(array $samples): void
    {
        foreach ($this->overs->push($samples) as $frame => $value) {
            $db = 20.0 * log10($value / $this->ceiling);
            $this->envelope->need(intdiv(max(0, $frame), $this->step), $db + self::MARGIN);
            $this->acts->need(max(0, $frame), $db);
        }
    }

    /** @return array<int, float> */
    private function guarded(): array
    {
        $samples = $this->held;
        $from = $this->done;
        $this->done += intdiv(\count($samples), $this->channels);
        $levels = $this->levelsFrom(intdiv($from, $this->step), (int) ceil($this->done / $this->step));
        if (0 === max($levels)) {
            return $samples;
        }
        $gains = array_map(static fn (int $level): float => 0 === $level ? 1.0 : 10.0 ** (-$level / GuardEnvelope::UNIT / 20.0), $levels);
        $channels = $this->channels;
        foreach ($gains as $step => $gain) {
            $next = $gains[$step + 1] ?? 1.0;
            $begin = $step * $this->step;
            [$first, $end] = [max($from, $begin), min($this->done, $begin + $this->step)];
            if ($first >= $end || (1.0 === $gain && 1.0 === $next)) {
                continue;
            }
            $this->acts->turned($first, $end);
            $slope = ($next - $gain) / $this->step;
            $gain += $slope * ($first - $begin);
            // Here and not in a method of its own, which would get a copy of the samples.
            for ($i = ($first - $from) * $channels, $last = ($end - $from) * $channels; $i < $last; ++$i) {
                $samples[$i] *= $gain;
                if (2 === $channels) {
                    $samples[++$i] *= $gain;
                }
                $gain += $slope;
            }
        }

        return $samples;
    }

    /** @return non-empty-array<int, int> by step, from one to another, both counted; of the last ones it is remembered what they were */
    private function levelsFrom(int $from, int $to): array
    {
        $known = array_key_last($this->levels) ?? -1;
        foreach ($to > $known ? $this->envelope->take($to - $known) : [] as $level) {
            $this->levels[++$known] = $level;
        }
        $levels = array_filter($this->levels, static fn (int $step): bool => $step >= $from, \ARRAY_FILTER_USE_KEY);
        $this->levels = \array_slice($levels, -2, 2, true);

        return $levels ?: [0];
    }
}
