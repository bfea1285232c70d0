<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * How loud a track is over time after all its gains, from what its sources were measured at, without rendering it. Sounds of
 * different clips are taken as unlike one another, so that their powers add up.
 */
final class TrackPower
{
    public const TENTHS_PER_SECOND = 10;

    private readonly int $frames;

    /**
     * @param array<int, float> $powers K-weighted mean square of each 100 ms of the timeline, summed over left and right
     * @param array<int, float> $peaks no sample of each 100 ms is higher, full scale is 1
     */
    private function __construct(int $rate, public array $powers, public array $peaks)
    {
        $this->frames = intdiv($rate, self::TENTHS_PER_SECOND);
    }

    /**
     * @param Closure(string): ?SourceTenths $tenthsOf by source id; null where a source has not been measured
     * @param int $count of 100 ms
     */
    public static function of(Mix $mix, Track $track, Closure $tenthsOf, int $count): self
    {
        $silence = array_fill(0, max(0, $count), 0.0);
        $power = new self($mix->rate, $silence, $silence);
        if ($track->muted || $track->fader->isSilence()) {
            return $power;
        }
        $fades = Fades::of($track);
        $pan = Pan::at($track->pan);
        foreach ($track->clips as $clip) {
            $tenths = $tenthsOf($clip->source);
            if (null === $tenths) {
                continue;
            }
            foreach (GainSchedule::parts($mix, $clip, $fades) as $part) {
                $power->addPart($clip, $part->heard(), $part->routing->then($pan), $track->fader->ratio(), $tenths);
            }
        }

        return $power;
    }

    /** @param list<Stretch> $stretches */
    private function addPart(Clip $clip, array $stretches, Routing $r, float $fader, SourceTenths $tenths): void
    {
        $left = $r->leftToLeft ** 2 + $r->leftToRight ** 2;
        $right = $r->rightToLeft ** 2 + $r->rightToRight ** 2;
        // A mono recording is the same sound on both inputs, so that their gains add up before they are squared.
        $alone = ($r->leftToLeft + $r->rightToLeft) ** 2 + ($r->leftToRight + $r->rightToRight) ** 2;
        $factors = 1 === $tenths->channels() ? [$alone] : [$left, $right];
        foreach ($factors as $channel => $factor) {
            $powers = $tenths->powers[$channel];
            // The last value is asked for with its successor.
            $powers[] = 0.0;
            foreach (0.0 === $factor ? [] : $stretches as $stretch) {
                $this->addPower($clip, $stretch, $powers, $factor * $fader * $fader);
            }
        }
        $highest = max(abs($r->leftToLeft) + abs($r->rightToLeft), abs($r->leftToRight) + abs($r->rightToRight));
        $this->addPeaks($clip, $stretches, $tenths->peaks, ($r->isStraight() ? 1.0 : $highest) * $fader);
    }

    /** @param list<float> $powers */
    private function addPower(Clip $clip, Stretch $stretch, array $powers, float $factor): void
    {
        $frames = $this->frames;
        $shift = $clip->at - $clip->in;
        $constant = $stretch->isConstant();
        $square = $constant ? $stretch->gainAt($stretch->from) ** 2 * $factor : 0.0;
        $from = $stretch->from + $shift;
        $to = $stretch->to + $shift;
        $end = min(\count($this->powers), intdiv($to - 1, $frames) + 1);
        $most = \count($powers) - 2;
        for ($k = intdiv($from, $frames); $k < $end; ++$k) {
            $first = $k * $frames < $from ? $from : $k * $frames;
            $last = ($k + 1) * $frames > $to ? $to : ($k + 1) * $frames;
            $middle = 0.5 * ($first + $last) - $shift;
            // The sound lies across two tenths of its source.
            $place = $middle / $frames - 0.5;
            $j = $place <= 0.0 ? 0 : (int) $place;
            if ($j > $most) {
                break;
            }
            $part = $place <= 0.0 ? 0.0 : $place - $j;
            $gain = $constant ? $square : $stretch->gainAt($middle) ** 2 * $factor;
            $this->powers[$k] += $gain * ($powers[$j] + $part * ($powers[$j + 1] - $powers[$j])) * ($last - $first) / $frames;
        }
    }

    /**
     * @param list<Stretch> $stretches
     * @param list<float> $peaks
     */
    private function addPeaks(Clip $clip, array $stretches, array $peaks, float $factor): void
    {
        $frames = $this->frames;
        $shift = $clip->at - $clip->in;
        $highest = [];
        foreach ($stretches as $stretch) {
            $constant = $stretch->isConstant();
            $gain = $constant ? $stretch->gainAt($stretch->from) : 0.0;
            $from = $stretch->from + $shift;
            $to = $stretch->to + $shift;
            for ($k = intdiv($from, $frames), $end = min(\count($this->peaks), intdiv($to - 1, $frames) + 1); $k < $end; ++$k) {
                $first = max($from, $k * $frames) - $shift;
                $last = min($to, ($k + 1) * $frames) - $shift;
                $j = intdiv($first, $frames);
                $value = max($peaks[$j] ?? 0.0, $peaks[$j + 1] ?? 0.0) * ($constant ? $gain : max($stretch->gainAt($first), $stretch->gainAt(0.5 * ($first + $last)), $stretch->gainAt($last)));
                if ($value > ($highest[$k] ?? 0.0)) {
                    $highest[$k] = $value;
                }
            }
        }
        foreach ($highest as $k => $value) {
            $this->peaks[$k] += $value * $factor;
        }
    }
}
