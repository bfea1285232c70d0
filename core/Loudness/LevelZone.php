<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Zone;

/** Where a track is outside the zone of its stem. Speech is looked at only where somebody speaks. */
final readonly class LevelZone
{
    /** Softer than this nothing sounds; mean square. */
    private const SILENT = 1e-7;

    /** Tenths of a second: averaged over a second, listed from a second on, joined over half a second. */
    private const HALF_WINDOW = 5;
    private const SHORTEST = 10;
    private const LONGEST_GAP = 5;

    private bool $isSpeech;
    private float $low;
    private float $high;

    public function __construct(Stem $stem, Zone $zone)
    {
        $this->isSpeech = Stem::Speech === $stem;
        $this->low = $zone->low ?? -\INF;
        $this->high = $zone->high;
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
     * @param list<array{int, int, float}> $runs as outside() found them
     *
     * @return list<array{above: bool, tenths: int, worst: float}> how much of it there is on either side, and the farthest in dB
     */
    public static function sums(array $runs): array
    {
        $sums = [];
        foreach ($runs as [$first, $end, $by]) {
            $above = $by > 0.0;
            $sum = $sums[(int) $above] ?? ['above' => $above, 'tenths' => 0, 'worst' => 0.0];
            $sum['tenths'] += $end - $first;
            $sum['worst'] = max($sum['worst'], abs($by));
            $sums[(int) $above] = $sum;
        }
        krsort($sums);

        return array_values($sums);
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
