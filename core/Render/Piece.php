<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Time\Span;

/** What sounds during one piece of the programme. */
final readonly class Piece
{
    /** @var array<int, non-empty-list<Layer>> what goes straight through, by bits */
    private array $layers;

    /** @var list<array{Voice, Span}> the rest, with the part of the piece that it sounds in */
    private array $others;

    /** @param list<Voice> $voices */
    public function __construct(array $voices, private Span $span)
    {
        $layers = $others = [];
        foreach ($voices as $voice) {
            $part = $span->within($voice->clip->span());
            if (null === $part) {
                continue;
            }
            $unit = null === $voice->coloured && $voice->routing->isStraight() && Renderer::PIECE === $span->length() ? StereoSum::unitOf($voice->source->format()) : 0;
            if (0 === $unit) {
                $others[] = [$voice, $part];
            } elseif (null !== $layer = $this->layer($voice, $part, $unit)) {
                $layers[$voice->source->format()->bits][] = $layer;
            }
        }
        $this->layers = $layers;
        $this->others = $others;
    }

    /** Whether nothing sounds in it. */
    public function isEmpty(): bool
    {
        return [] === $this->layers && [] === $this->others;
    }

    /**
     * @param list<Strip> $strips tracks with filters, which sound besides
     *
     * @return array<int, float> interleaved stereo, full scale ±1.0
     */
    public function samples(array $strips = []): array
    {
        $sum = new StereoSum($this->span);
        foreach ($this->layers as $bits => $layers) {
            $sum->addLayers($layers, $bits);
        }
        foreach ($this->others as [$voice, $part]) {
            $this->add($voice, $part, $sum);
        }
        foreach ($strips as $strip) {
            $strip->addTo($sum, $this->span);
        }

        return $sum->samples();
    }

    /** @return ?Layer null where nothing is heard */
    private function layer(Voice $voice, Span $part, int $unit): ?Layer
    {
        $bytes = $voice->source->read($part->from + $voice->shift(), $part->length());
        if ('' === ltrim($bytes, "\0")) {
            return null;
        }
        $steps = $part->from > $this->span->from ? [GainStep::silence($part->from - $this->span->from)] : [];
        foreach ($voice->stretchesWithin($part) as [$stretch, $from, $to]) {
            array_push($steps, ...($stretch->isSilent() ? [GainStep::silence($to - $from)] : GainStep::of($stretch, $from, $to)));
        }
        if ($part->to < $this->span->to) {
            $steps[] = GainStep::silence($this->span->to - $part->to);
        }
        $frame = $voice->source->format()->bytesPerFrame();
        $before = str_repeat("\0", ($part->from - $this->span->from) * $frame);

        return new Layer(str_pad($before.$bytes, $this->span->length() * $frame, "\0"), $steps, $unit);
    }

    private function add(Voice $voice, Span $part, StereoSum $sum): void
    {
        if (null !== $voice->coloured) {
            $this->addColoured($voice, $voice->coloured, $part, $sum);

            return;
        }
        foreach ($voice->stretchesWithin($part) as [$stretch, $from, $to]) {
            if ($stretch->isSilent()) {
                continue;
            }
            $bytes = $voice->source->read($from, $to - $from);
            if ('' === ltrim($bytes, "\0")) {
                continue;
            }
            $sum->add($bytes, $voice->source->format(), $from - $voice->shift(), GainStep::of($stretch, $from, $to), $voice->routing);
        }
    }

    private function addColoured(Voice $voice, ColouredSound $coloured, Span $part, StereoSum $sum): void
    {
        $first = $part->from + $voice->shift();
        $samples = $coloured->samples($first, $part->length());
        $channels = $voice->source->format()->channels;
        foreach ($voice->stretchesWithin($part) as [$stretch, $from, $to]) {
            if (!$stretch->isSilent()) {
                $sum->addSamples($samples, ($from - $first) * $channels, $channels, 1.0, $from - $voice->shift(), GainStep::of($stretch, $from, $to), $voice->routing);
            }
        }
    }
}
