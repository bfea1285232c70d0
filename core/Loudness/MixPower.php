<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Render\Part;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Track;

/**
 * How much power a mix has over time, from the blocks of its sources and its gains, without rendering it. Sounds of different
 * clips are taken as unlike one another, so that their powers add up.
 */
final class MixPower
{
    /** @var array<int, float> by number of the 100 ms */
    private array $tenths;

    private readonly int $blockFrames;

    private readonly int $tenthFrames;

    /** @param Closure(string): ?SourceBlocks $blocksOf by source id; null where a source has not been measured */
    private function __construct(private readonly Mix $mix, private readonly Closure $blocksOf, private readonly Span $span)
    {
        $this->blockFrames = intdiv($mix->rate, SourceBlocks::PER_SECOND);
        $this->tenthFrames = intdiv($mix->rate, 10);
        $this->tenths = array_fill(0, max(1, intdiv($span->length(), $this->tenthFrames)), 0.0);
    }

    /**
     * @param Closure(string): ?SourceBlocks $blocksOf by source id
     * @param Span $span timeline samples
     *
     * @return list<float> K-weighted mean square of each 100 ms of the span, summed over left and right
     */
    public static function of(Mix $mix, Closure $blocksOf, Span $span): array
    {
        $power = new self($mix, $blocksOf, $span);
        foreach ($mix->tracks as $track) {
            if (!$track->muted && !$track->fader->isSilence()) {
                $power->addTrack($track);
            }
        }

        return array_values($power->tenths);
    }

    private function addTrack(Track $track): void
    {
        $fades = Fades::of($track);
        $pan = Pan::at($track->pan);
        foreach ($track->clips as $clip) {
            $blocks = $clip->span()->meets($this->span) ? ($this->blocksOf)($clip->source) : null;
            if (null === $blocks) {
                continue;
            }
            foreach (GainSchedule::parts($this->mix, $clip, $fades) as $part) {
                $routing = $part->routing->then($pan);
                $left = $routing->leftToLeft ** 2 + $routing->leftToRight ** 2;
                $right = $routing->rightToLeft ** 2 + $routing->rightToRight ** 2;
                // A mono recording is the same sound on both inputs, so that their gains add up before they are squared.
                $alone = ($routing->leftToLeft + $routing->rightToLeft) ** 2 + ($routing->leftToRight + $routing->rightToRight) ** 2;
                $fader = $track->fader->ratio() ** 2;
                if (1 === $blocks->channels()) {
                    $this->addPart($clip, $part, $blocks->powers(0), $alone * $fader);
                } else {
                    $this->addPart($clip, $part, $blocks->powers(0), $left * $fader);
                    $this->addPart($clip, $part, $blocks->powers(1), $right * $fader);
                }
            }
        }
    }

    /** @param list<float> $powers of one channel of the source, every 20 ms */
    private function addPart(Clip $clip, Part $part, array $powers, float $factor): void
    {
        if (0.0 === $factor) {
            return;
        }
        $shift = $clip->at - $clip->in;
        $from = max($clip->in, $this->span->from - $shift);
        $to = min($clip->in + $clip->length, $this->span->to - $shift);
        $last = \count($this->tenths) - 1;
        foreach ($part->heard() as $stretch) {
            $first = intdiv(max($from, $stretch->from) + intdiv($this->blockFrames, 2), $this->blockFrames);
            $end = min(intdiv(min($to, $stretch->to) + intdiv($this->blockFrames, 2), $this->blockFrames), \count($powers));
            $constant = $stretch->isConstant();
            $gain = $constant ? $stretch->gainAt($stretch->from) ** 2 * $factor : 0.0;
            for ($b = $first; $b < $end; ++$b) {
                $middle = $b * $this->blockFrames + intdiv($this->blockFrames, 2);
                $tenth = intdiv($middle + $shift - $this->span->from, $this->tenthFrames);
                if ($tenth <= $last) {
                    $this->tenths[$tenth] += 0.2 * $powers[$b] * ($constant ? $gain : self::squareAt($stretch, $middle) * $factor);
                }
            }
        }
    }

    private static function squareAt(Stretch $stretch, int $position): float
    {
        return $stretch->gainAt(max($stretch->from, min($stretch->to, $position))) ** 2;
    }
}
