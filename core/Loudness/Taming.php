<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Curve\Notch;

/** The narrowest notches under which a moment that is above a ceiling comes down to it. */
final readonly class Taming
{
    /** A notch falls and rises for at least 5 ms each, so that it does not click, and at most for a quarter of a second. */
    private const SHORTEST_SECONDS = 0.005;
    private const LONGEST_SECONDS = 0.25;

    /** A moment lasts when it stays above this part of its worst excess for longer than this, with no longer gap than that. */
    private const NEARLY = 0.6;
    private const LASTING_SECONDS = 0.06;
    private const LONGEST_GAP_SECONDS = 0.03;

    /** Left-over excess that is not worth a notch of its own. dB */
    private const TOLERANCE = 0.05;
    private const MOST_PER_MOMENT = 12;

    /** @param float $ceiling dBFS */
    public function __construct(private float $ceiling, private int $rate)
    {
    }

    /**
     * @param array<int, float> $excess dB over the ceiling of every sample that is, by source sample
     *
     * @return list<Peak> none where the sound stays below the ceiling after all
     */
    public function of(array $excess): array
    {
        $peaks = [];
        while ([] !== $excess && \count($peaks) < self::MOST_PER_MOMENT) {
            $worst = max($excess);
            if ($worst <= ([] === $peaks ? 0.0 : self::TOLERANCE)) {
                break;
            }
            [$first, $last] = $this->loudSpan($excess, (int) array_search($worst, $excess, true), $worst);
            $notch = new Notch($first, -$worst, $this->width($excess, $first, $worst, -1), $this->width($excess, $last, $worst, 1), $last - $first);
            $peaks[] = new Peak($this->ceiling + $worst, $notch);
            foreach ($excess as $position => $over) {
                $excess[$position] = $over + $notch->differenceAt($position);
            }
        }
        usort($peaks, static fn (Peak $a, Peak $b): int => $a->notch->at <=> $b->notch->at);

        return $peaks;
    }

    /**
     * A peak is a point. What stays nearly as loud for longer is held down as a whole.
     *
     * @param array<int, float> $excess dB over the ceiling, by source sample
     *
     * @return array{int, int} first and last sample; twice the same for a point
     */
    private function loudSpan(array $excess, int $at, float $worst): array
    {
        $gap = (int) (self::LONGEST_GAP_SECONDS * $this->rate);
        $first = $last = $at;
        foreach ($excess as $position => $over) {
            if ($over > self::NEARLY * $worst && $position > $last && $position - $last <= $gap) {
                $last = $position;
            }
        }
        foreach (array_reverse($excess, true) as $position => $over) {
            if ($over > self::NEARLY * $worst && $position < $first && $first - $position <= $gap) {
                $first = $position;
            }
        }

        return $last - $first > self::LASTING_SECONDS * $this->rate ? [$first, $last] : [$at, $at];
    }

    /**
     * The narrowest side of a notch under which all near it come to the ceiling: at distance d it takes off worst·(1 − d/width).
     *
     * @param array<int, float> $excess dB over the ceiling, by source sample
     *
     * @return int samples
     */
    private function width(array $excess, int $at, float $worst, int $direction): int
    {
        $width = (int) ceil(self::SHORTEST_SECONDS * $this->rate);
        $longest = (int) (self::LONGEST_SECONDS * $this->rate);
        foreach ($excess as $position => $over) {
            $distance = ($position - $at) * $direction;
            if ($distance > 0 && $over > 0.0 && $over < $worst) {
                $width = max($width, (int) ceil($distance / (1.0 - $over / $worst)));
            }
        }

        return min($width, $longest);
    }
}
