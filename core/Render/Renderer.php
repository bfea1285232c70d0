<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Generator;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Curve\Stretches;
use Wattage\Core\Filter\Cascade;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * Mixes a span of the programme down to stereo, a piece at a time, in constant memory.
 *
 * Everything is linear, so the pan, fader and lanes of a track are folded into the gain of its clips, which are added straight into one sum. Only the clips of
 * a track with filters come together first.
 */
final readonly class Renderer
{
    /** Frames rendered at once: 100 ms at 48 kHz, small enough for the processor's cache. */
    public const PIECE = 4800;

    /**
     * @param array<string, PcmSource> $sources by source id; every source that a sounding clip uses
     * @param int $piece frames rendered at once
     */
    public function __construct(private Mix $mix, private array $sources, private int $piece = self::PIECE)
    {
    }

    /**
     * @param Span ...$spans in rising time
     *
     * @return Generator<int, array<int, float>> by position: interleaved stereo, full scale ±1.0, a piece or the rest
     */
    public function render(Span ...$spans): Generator
    {
        $voices = $strips = [];
        foreach ($this->mix->tracks as $track) {
            if ($track->isSilent()) {
                continue;
            }
            if ($track->isFiltered()) {
                $strips[] = $this->strip($track);
            } else {
                array_push($voices, ...$this->voices($track));
            }
        }
        foreach ($spans as $span) {
            for ($from = $span->from; $from < $span->to; $from += $this->piece) {
                yield $from => (new Piece($voices, Span::of($from, min($from + $this->piece, $span->to))))->samples($strips);
            }
        }
    }

    /** @return list<Voice> the clips that sound at all, with all that their track does */
    private function voices(Track $track): array
    {
        $voices = [];
        foreach ($this->parts($track) as [$clip, $part, $coloured]) {
            array_push($voices, ...$this->voicesOf($track, $clip, $part, $coloured));
        }

        return $voices;
    }

    /** @return Generator<array{Clip, Part, ?ColouredSound}> */
    private function parts(Track $track): Generator
    {
        $fades = Fades::of($track);
        foreach ($track->clips as $clip) {
            $biquads = $clip->colour->biquads($this->mix->rate);
            $coloured = [] === $biquads ? null : new ColouredSound($this->sources[$clip->source], $biquads);
            foreach (GainSchedule::parts($this->mix, $clip, $fades) as $part) {
                yield [$clip, $part, $coloured];
            }
        }
    }

    /** @return list<Voice> one, or several where the pan moves */
    private function voicesOf(Track $track, Clip $clip, Part $part, ?ColouredSound $coloured): array
    {
        $still = TrackMoves::stillIn($this->mix, $track);
        $stretches = array_map(static fn (Stretch $s): Stretch => $s->raised($still), $part->heard());
        $moving = TrackMoves::under($track, $clip);
        $stretches = null === $moving ? $stretches : Stretches::product($stretches, $moving);
        $source = $this->sources[$clip->source];
        if (!$track->hasPanLane()) {
            return [new Voice($clip, $source, $stretches, $part->routing->then(Pan::at($track->pan)), $coloured)];
        }

        return array_map(
            static fn (array $way): Voice => new Voice($clip, $source, Stretches::product($stretches, $way[1]), $way[0], $coloured),
            TrackMoves::panned($track, $clip, $part->routing),
        );
    }

    private function strip(Track $track): Strip
    {
        $giving = $direct = [];
        foreach ($this->parts($track) as [$clip, $part, $coloured]) {
            $moving = TrackMoves::duckingUnder($track, $clip);
            $stretches = null === $moving ? $part->heard() : Stretches::product($part->heard(), $moving);
            $voice = new Voice($clip, $this->sources[$clip->source], $stretches, $part->routing, $coloured);
            $clip->ducked ? $giving[] = $voice : $direct[] = $voice;
        }
        $span = Span::of(0, max(1, $this->mix->length()));
        $band = TrackMoves::band($track, $span);
        $still = TrackMoves::stillIn($this->mix, $track);
        $levels = array_map(static fn (Stretch $s): Stretch => $s->raised($still), TrackMoves::level($track, $span) ?? [Stretch::decibels($span->from, $span->to, 0.0)]);
        $ways = $track->hasPanLane()
            ? array_map(static fn (array $way): array => [$way[0], new Moves(Stretches::product($levels, $way[1]))], TrackMoves::pannedTogether($track, $span))
            : [[Pan::at($track->pan), new Moves($levels)]];

        return new Strip($giving, $direct, null === $band ? null : new Moves($band), new Cascade($track->colour->biquads($this->mix->rate)), $ways, $this->mix->rate);
    }
}
