<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Curve\Stretches;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Render\TrackMoves;
use Wattage\Core\Signal\FloatDecoder;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\MuteLane;
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
        if ($track->isSilent()) {
            return $power;
        }
        $fades = Fades::of($track);
        $still = TrackMoves::still($track)->ratio();
        foreach ($track->clips as $clip) {
            $tenths = $tenthsOf($clip->source);
            if (null === $tenths) {
                continue;
            }
            $moving = TrackMoves::under($track, $clip);
            $pans = self::pans($track, $clip->span(), $mix->rate);
            foreach (GainSchedule::parts($mix, $clip, $fades) as $part) {
                $stretches = null === $moving ? $part->heard() : Stretches::product($part->heard(), $moving);
                foreach ($pans as [$from, $to, $pan]) {
                    $within = 1 === \count($pans) ? $stretches : Stretches::within($stretches, $clip->toSource($from), $clip->toSource($to));
                    $power->addPart($clip, $within, $part->routing->then(Pan::at($pan)), $still, $tenths);
                }
            }
        }

        return $power;
    }

    /**
     * One clip by itself, from where it starts, as its track lets it be heard; pan in the middle, mutes of the track left out.
     *
     * @param Decibels $after of the faders that come after the track
     */
    public static function ofClip(Mix $mix, Track $track, Clip $clip, SourceTenths $tenths, Decibels $after): self
    {
        $frames = intdiv($mix->rate, self::TENTHS_PER_SECOND);
        $silence = array_fill(0, intdiv($clip->length + $frames - 1, $frames), 0.0);
        $power = new self($mix->rate, $silence, $silence);
        $still = TrackMoves::still($track)->plus($after)->ratio();
        $moving = TrackMoves::under($track->withLanes($track->lanes->withMute(new MuteLane())), $clip);
        foreach (GainSchedule::parts($mix, $clip, Fades::of($track)) as $part) {
            $stretches = null === $moving ? $part->heard() : Stretches::product($part->heard(), $moving);
            $power->addPart($clip->movedTo(0), $stretches, $part->routing->then(Pan::at(0.0)), $still, $tenths);
        }

        return $power;
    }

    /**
     * @return list<array{int, int, float}> spans of the timeline, and the pan in the middle of each: short where it moves
     */
    private static function pans(Track $track, Span $span, int $rate): array
    {
        if (!$track->hasPanLane()) {
            return [[$span->from, $span->to, $track->pan]];
        }
        $pans = [];
        foreach (TrackMoves::panMoves($track, $span) as [$from, $to, $first, $last]) {
            $step = $first === $last ? $to - $from : intdiv($rate, 2);
            for ($at = $from; $at < $to; $at += $step) {
                $end = min($to, $at + $step);
                $pans[] = [$at, $end, $first + ($last - $first) * (0.5 * ($at + $end) - $from) / ($to - $from)];
            }
        }

        return $pans;
    }

    /** @param string $bytes as toBytes() gave them */
    public static function fromBytes(string $bytes, int $rate): self
    {
        $half = intdiv(\strlen($bytes), 2);

        return new self($rate, FloatDecoder::decode(substr($bytes, 0, $half)), FloatDecoder::decode(substr($bytes, $half)));
    }

    /** @return string float32: the powers, then the peaks */
    public function toBytes(): string
    {
        return [] === $this->powers ? '' : pack('g*', ...$this->powers, ...$this->peaks);
    }

    /** @param list<Stretch> $stretches */
    private function addPart(Clip $clip, array $stretches, Routing $r, float $fader, SourceTenths $tenths): void
    {
        $left = $r->leftToLeft ** 2 + $r->leftToRight ** 2;
        $right = $r->rightToLeft ** 2 + $r->rightToRight ** 2;
        // A mono recording is the same sound on both inputs, so that their gains add up before they are squared.
        $alone = ($r->leftToLeft + $r->rightToLeft) ** 2 + ($r->leftToRight + $r->rightToRight) ** 2;
        $highest = max(abs($r->leftToLeft) + abs($r->rightToLeft), abs($r->leftToRight) + abs($r->rightToRight));
        $stereo = 2 === $tenths->channels();
        $this->addStretches($clip, $stretches, $tenths, $stereo ? $left : $alone, $stereo ? $right : 0.0, $r->isStraight() ? 1.0 : $highest, $fader);
    }

    /**
     * One loop for all of it, since an hour of eight tracks is worked out after every edit.
     *
     * @param list<Stretch> $stretches
     * @param float $first square of the gain of the first channel
     * @param float $second of the second
     * @param float $spread how far channels that are added may pass the louder of them
     */
    private function addStretches(Clip $clip, array $stretches, SourceTenths $tenths, float $first, float $second, float $spread, float $fader): void
    {
        $frames = $this->frames;
        $shift = $clip->at - $clip->in;
        $one = $tenths->powers[0];
        $two = $tenths->powers[1] ?? [];
        $top = $tenths->peaks;
        $last = \count($one) - 1;
        $edges = [];
        foreach ($stretches as $stretch) {
            $constant = $stretch->isConstant();
            $gain = $next = $fader * $stretch->gainAt($stretch->from);
            $from = $stretch->from + $shift;
            $to = $stretch->to + $shift;
            $end = min(\count($this->powers), intdiv($to - 1, $frames) + 1);
            for ($k = intdiv($from, $frames); $k < $end; ++$k) {
                $start = $k * $frames < $from ? $from : $k * $frames;
                $stop = ($k + 1) * $frames > $to ? $to : ($k + 1) * $frames;
                // The sound lies across two tenths of its source.
                $place = (0.5 * ($start + $stop) - $shift) / $frames - 0.5;
                $j = $place <= 0.0 ? 0 : (int) $place;
                if ($j > $last) {
                    break;
                }
                $after = $j < $last ? $j + 1 : $j;
                $part = $place <= 0.0 ? 0.0 : $place - $j;
                if (!$constant) {
                    $gain = $next;
                    $next = $fader * $stretch->gainAt($stop - $shift);
                }
                $power = $first * ($one[$j] + $part * ($one[$after] - $one[$j]));
                if ($second > 0.0) {
                    $power += $second * ($two[$j] + $part * ($two[$after] - $two[$j]));
                }
                // The mean of the square of a gain that goes straight from one to the other.
                $this->powers[$k] += $power * ($gain * $gain + $gain * $next + $next * $next) / 3.0 * ($stop - $start) / $frames;
                $peak = $top[$j] > $top[$after] ? $top[$j] : $top[$after];
                $peak *= $spread * ($gain > $next ? $gain : $next);
                if ($stop - $start === $frames) {
                    $this->peaks[$k] += $peak;
                } elseif ($peak > ($edges[$k] ?? 0.0)) {
                    $edges[$k] = $peak;
                }
            }
        }
        foreach ($edges as $k => $peak) {
            $this->peaks[$k] += $peak;
        }
    }
}
