<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Timeline\Stem;

/**
 * Between which levels a track of a kind belongs while it sounds, and where it does not. Speech is looked at only where somebody
 * speaks; what lies under speech may be as soft as it likes. Common practice around the starting levels, −20 dBFS on average for
 * speech and −30 for background.
 */
final readonly class LevelZone
{
    private const SPEECH = [-26.0, -14.0];
    private const BACKGROUND = [-\INF, -14.0];

    /** Softer than this nothing sounds; mean square. */
    private const SILENT = 1e-7;

    /** Tenths of a second: averaged over a second, listed from a second on, joined over half a second. */
    private const HALF_WINDOW = 5;
    private const SHORTEST = 10;
    private const LONGEST_GAP = 5;

    /**
     * @param float $low dBFS, average
     * @param float $high dBFS, average
     */
    private function __construct(private bool $isSpeech, public float $low, public float $high)
    {
    }

    public static function of(Stem $stem): self
    {
        $isSpeech = Stem::Speech === $stem;

        return new self($isSpeech, ...($isSpeech ? self::SPEECH : self::BACKGROUND));
    }

    /**
     * @param array<int, float> $powers of the track, every 100 ms, summed over both sides
     * @param array<int, bool> $spoken numbers of the 100 ms in which somebody speaks
     *
     * @return list<array{int, int, float}> first 100 ms, last + 1, and by how many dB at most: above the zone, or below it (negative)
     */
    public function outside(array $powers, array $spoken): array
    {
        $runs = [];
        foreach ($this->levels($powers, $spoken) as $k => $level) {
            $off = $level > $this->high ? $level - $this->high : min(0.0, $level - $this->low);
            if (0.0 === $off) {
                continue;
            }
            $last = array_pop($runs);
            if (null !== $last && ($k - $last[1] > self::LONGEST_GAP || ($last[2] > 0.0) !== ($off > 0.0))) {
                $runs[] = $last;
                $last = null;
            }
            $runs[] = [$last[0] ?? $k, $k + 1, null === $last || abs($off) > abs($last[2]) ? $off : $last[2]];
        }

        return array_values(array_filter($runs, static fn (array $run): bool => $run[1] - $run[0] >= self::SHORTEST));
    }

    /**
     * @param array<int, float> $powers
     * @param array<int, bool> $spoken
     *
     * @return array<int, float> dBFS, averaged over the second around each 100 ms that counts
     */
    private function levels(array $powers, array $spoken): array
    {
        $counts = fn (int $k): bool => ($powers[$k] ?? 0.0) > self::SILENT && (!$this->isSpeech || isset($spoken[$k]));
        $sums = [0.0];
        $numbers = [0];
        foreach (array_keys($powers) as $k) {
            $here = $counts($k);
            $sums[] = $sums[$k] + ($here ? $powers[$k] : 0.0);
            $numbers[] = $numbers[$k] + ($here ? 1 : 0);
        }
        $n = \count($powers);
        $levels = [];
        for ($k = 0; $k < $n; ++$k) {
            if ($counts($k)) {
                $from = max(0, $k - self::HALF_WINDOW);
                $to = min($n, $k + self::HALF_WINDOW);
                // Half of it, since an average level is that of one side.
                $levels[$k] = Gating::loudness(0.5 * ($sums[$to] - $sums[$from]) / max(1, $numbers[$to] - $numbers[$from]));
            }
        }

        return $levels;
    }
}
