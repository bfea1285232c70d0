<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Curve\Stretches;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Render\TrackMoves;
use Wattage\Core\Signal\Pan;
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
final readonly class TrackPower
{
    public const TENTHS_PER_SECOND = 10;

    /**
     * @param Series $powers K-weighted mean square of each 100 ms of the timeline, summed over left and right
     * @param Series $peaks no sample of each 100 ms is higher, full scale is 1
     */
    private function __construct(public Series $powers, public Series $peaks)
    {
    }

    /**
     * @param Closure(string): ?SourceTenths $tenthsOf by source id; null where a source has not been measured
     * @param int $count of 100 ms
     */
    public static function of(Mix $mix, Track $track, Closure $tenthsOf, int $count): self
    {
        $fades = Fades::of($track);
        $still = TrackMoves::still($track)->ratio();

        return self::paged($mix, $count, static function (PowerPage $page, Span $span) use ($mix, $track, $tenthsOf, $fades, $still): void {
            foreach ($track->isSilent() ? [] : $track->clips as $clip) {
                $tenths = $clip->span()->meets($span) ? $tenthsOf($clip->source) : null;
                null === $tenths || self::addClip($page, $mix, $track, $clip, $fades, $still, $tenths);
            }
        });
    }

    /**
     * One clip by itself, from where it starts, as its track lets it be heard; pan in the middle, mutes of the track left out.
     *
     * @param Decibels $after of the faders that come after the track
     */
    public static function ofClip(Mix $mix, Track $track, Clip $clip, SourceTenths $tenths, Decibels $after): self
    {
        $frames = intdiv($mix->rate, self::TENTHS_PER_SECOND);
        $tenths = Filtering::of($mix, $track, $clip)?->tenths($tenths) ?? $tenths;
        $still = TrackMoves::still($track)->plus($after)->ratio();
        $moving = TrackMoves::under($track->withLanes($track->lanes->withMute(new MuteLane())), $clip);
        $parts = [];
        foreach (GainSchedule::parts($mix, $clip, Fades::of($track)) as $part) {
            $parts[] = [null === $moving ? $part->heard() : Stretches::product($part->heard(), $moving), $part->routing->then(Pan::at(0.0))];
        }
        $first = $clip->movedTo(0);

        return self::paged($mix, intdiv($clip->length + $frames - 1, $frames), static function (PowerPage $page) use ($parts, $first, $still, $tenths): void {
            foreach ($parts as [$stretches, $routing]) {
                $page->add($first, $stretches, $routing, $still, $tenths);
            }
        });
    }

    /** @param string $bytes as toBytes() gave them */
    public static function fromBytes(string $bytes): self
    {
        $half = intdiv(\strlen($bytes), 2);

        return new self(Series::fromBytes(substr($bytes, 0, $half)), Series::fromBytes(substr($bytes, $half)));
    }

    /** @return string float32: the powers, then the peaks */
    public function toBytes(): string
    {
        return $this->powers->toBytes().$this->peaks->toBytes();
    }

    /**
     * An hour at a time, so that a day needs hardly more memory.
     *
     * @param Closure(PowerPage, Span): void $add what sounds within a span of the timeline
     */
    private static function paged(Mix $mix, int $count, Closure $add): self
    {
        $frames = intdiv($mix->rate, self::TENTHS_PER_SECOND);
        $powers = $peaks = '';
        for ($first = 0; $first < $count; $first += Series::AT_ONCE) {
            $end = min($count, $first + Series::AT_ONCE);
            $page = new PowerPage($first, $end - $first, $frames);
            $add($page, Span::of($first * $frames, $end * $frames));
            $powers .= Series::packed($page->powers);
            $peaks .= Series::packed($page->peaks);
        }

        return new self(Series::fromBytes($powers), Series::fromBytes($peaks));
    }

    private static function addClip(PowerPage $page, Mix $mix, Track $track, Clip $clip, Fades $fades, float $still, SourceTenths $tenths): void
    {
        $tenths = Filtering::of($mix, $track, $clip)?->tenths($tenths) ?? $tenths;
        $moving = TrackMoves::under($track, $clip);
        $pans = self::pans($track, $clip->span(), $mix->rate);
        foreach (GainSchedule::parts($mix, $clip, $fades) as $part) {
            $stretches = null === $moving ? $part->heard() : Stretches::product($part->heard(), $moving);
            foreach ($pans as [$from, $to, $pan]) {
                $within = 1 === \count($pans) ? $stretches : Stretches::within($stretches, $clip->toSource($from), $clip->toSource($to));
                $page->add($clip, $within, $part->routing->then(Pan::at($pan)), $still, $tenths);
            }
        }
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
}
