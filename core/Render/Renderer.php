<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Generator;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Curve\Stretches;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * Mixes a span of the programme down to stereo, a piece at a time, in constant memory.
 *
 * Everything is linear, so the pan, fader and lanes of a track are folded into the gain of its clips, which are added straight into one sum.
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
        foreach ($this->pieces(...$spans) as $from => $piece) {
            yield $from => $piece->samples();
        }
    }

    /**
     * @param Span ...$spans in rising time
     *
     * @return Generator<int, Piece> by position
     */
    public function pieces(Span ...$spans): Generator
    {
        $voices = $this->voices();
        foreach ($spans as $span) {
            for ($from = $span->from; $from < $span->to; $from += $this->piece) {
                yield $from => new Piece($voices, Span::of($from, min($from + $this->piece, $span->to)));
            }
        }
    }

    /** @return list<Voice> the clips that sound at all */
    private function voices(): array
    {
        $voices = [];
        foreach ($this->mix->tracks as $track) {
            if (!$track->isSilent()) {
                $fades = Fades::of($track);
                foreach ($track->clips as $clip) {
                    foreach (GainSchedule::parts($this->mix, $clip, $fades) as $part) {
                        array_push($voices, ...$this->voicesOf($track, $clip, $part));
                    }
                }
            }
        }

        return $voices;
    }

    /** @return list<Voice> one, or several where the pan moves */
    private function voicesOf(Track $track, Clip $clip, Part $part): array
    {
        $still = TrackMoves::stillIn($this->mix, $track);
        $stretches = array_map(static fn (Stretch $s): Stretch => $s->raised($still), $part->heard());
        $moving = TrackMoves::under($track, $clip);
        $stretches = null === $moving ? $stretches : Stretches::product($stretches, $moving);
        $source = $this->sources[$clip->source];
        if (!$track->hasPanLane()) {
            return [new Voice($clip, $source, $stretches, $part->routing->then(Pan::at($track->pan)))];
        }

        return array_map(
            static fn (array $way): Voice => new Voice($clip, $source, Stretches::product($stretches, $way[1]), $way[0]),
            TrackMoves::panned($track, $clip, $part->routing),
        );
    }
}
