<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

/** Where sound passes full scale: what a file in whole numbers flattens, and a file in floats keeps. */
final class Clipping
{
    /** Samples of silence between two places after which they count as two: half a second at 48 kHz. */
    private const APART = 24_000;

    /** Places that are remembered; beyond them only the count goes on. */
    private const MOST = 200;

    /** Samples over full scale, both channels counted. */
    public int $samples = 0;

    /** Highest sample; full scale is 1. */
    public float $highest = 0.0;

    /** @var list<array{int, int, float}> from and to on the timeline, and the highest sample there */
    public array $places = [];

    /**
     * @param array<int, float> $samples interleaved, full scale ±1.0
     * @param int $from timeline sample of the first
     * @param int $channels 1 or 2
     */
    public function look(array $samples, int $from, int $channels = 2): void
    {
        if ([] === $samples) {
            return;
        }
        $highest = max(max($samples), -min($samples));
        $this->highest = max($this->highest, $highest);
        if ($highest <= 1.0) {
            return;
        }
        foreach ($samples as $i => $sample) {
            if ($sample > 1.0 || $sample < -1.0) {
                ++$this->samples;
                $at = $from + intdiv($i, $channels);
                $this->place($at, $at + 1, abs($sample));
            }
        }
    }

    /** @param ?float $peak dBFS of a sample that is known, below full scale */
    public function atLeast(?float $peak): void
    {
        $this->highest = null === $peak ? $this->highest : max($this->highest, 10.0 ** ($peak / 20.0));
    }

    /** The places of what follows, too. */
    public function join(self $next): void
    {
        $this->samples += $next->samples;
        $this->highest = max($this->highest, $next->highest);
        foreach ($next->places as [$from, $to, $highest]) {
            $this->place($from, $to, $highest);
        }
    }

    private function place(int $from, int $to, float $highest): void
    {
        $last = \count($this->places) - 1;
        if ($last >= 0 && $from - $this->places[$last][1] < self::APART) {
            $this->places[$last] = [$this->places[$last][0], $to, max($highest, $this->places[$last][2])];
        } elseif ($last + 1 < self::MOST) {
            $this->places[] = [$from, $to, $highest];
        }
    }
}
