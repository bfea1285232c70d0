<?php

declare(strict_types=1);

namespace Wattage\Core\Render;

use Wattage\Core\Filter\BandFilter;
use Wattage\Core\Filter\Cascade;
use Wattage\Core\Signal\Routing;
use Wattage\Core\Time\Span;

/**
 * A track with filters: its clips come together first, those that give way pass its band lane, then all of them its colour, and then its level and pan. The
 * player has the same order. Meant to be asked in rising time.
 */
final class Strip
{
    private readonly BandFilter $without;
    private readonly Cascade $colour;
    private int $at = -1;

    /**
     * @param list<Voice> $giving clips that give way
     * @param list<Voice> $direct those that do not
     * @param ?Moves $band how far the band of speech is left in, timeline time; null where it stays
     * @param list<array{Routing, Moves}> $ways out of the track, timeline time
     */
    public function __construct(private readonly array $giving, private readonly array $direct, private readonly ?Moves $band, Cascade $colour, private readonly array $ways, int $rate)
    {
        $this->without = new BandFilter($rate);
        $this->colour = $colour;
    }

    public function addTo(StereoSum $sum, Span $span): void
    {
        if ($span->from !== $this->at) {
            $this->runUp($span->from);
        }
        $this->at = $span->to;
        $samples = $this->through($span);
        if (null === $samples) {
            return;
        }
        foreach ($this->ways as [$routing, $moves]) {
            foreach ($moves->within($span) as [$stretch, $from, $to]) {
                if (!$stretch->isSilent()) {
                    $sum->addSamples($samples, 2 * ($from - $span->from), 2, 1.0, $from, GainStep::of($stretch, $from, $to), $routing);
                }
            }
        }
    }

    /** The filters hear what comes before. */
    private function runUp(int $to): void
    {
        $this->without->forget();
        $this->colour->forget();
        for ($from = max(0, $to - ColouredSound::RUN_UP); $from < $to; $from += Renderer::PIECE) {
            $this->through(Span::of($from, min($to, $from + Renderer::PIECE)));
        }
    }

    /** @return ?array<int, float> interleaved stereo; null for silence */
    private function through(Span $span): ?array
    {
        [$giving, $direct] = [new Piece($this->giving, $span), new Piece($this->direct, $span)];
        if ($giving->isEmpty() && $direct->isEmpty() && !$this->colour->rings()) {
            return null;
        }
        $samples = null === $this->band ? $giving->samples() : $this->givenWay($giving->samples(), $this->band, $span);
        if (!$direct->isEmpty()) {
            foreach ($direct->samples() as $i => $sample) {
                $samples[$i] += $sample;
            }
        }

        return $this->colour->stereo($samples);
    }

    /**
     * N(x) + g·(x − N(x)), see {@see BandFilter}. While nothing gives way the filter rests; it has forgotten all within a millisecond, and what it lacks when it
     * begins is far down as long as g is near 1.
     *
     * @param array<int, float> $samples
     *
     * @return array<int, float>
     */
    private function givenWay(array $samples, Moves $band, Span $span): array
    {
        $parts = iterator_to_array($band->within($span), false);
        if ([] === array_filter($parts, static fn (array $part): bool => !$part[0]->isConstant() || 1.0 !== $part[0]->gainAt($part[1]))) {
            $this->without->forget();

            return $samples;
        }
        $o = 0;
        foreach ($parts as [$stretch, $from, $to]) {
            foreach (GainStep::of($stretch, $from, $to) as $step) {
                $samples = $this->without->left($samples, $o, $step->frames, $step->gain, $step->factor, $step->slope);
                $o += 2 * $step->frames;
            }
        }

        return $samples;
    }
}
