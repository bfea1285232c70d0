<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Generator;
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
     * @param Series $powers of the track, every 100 ms, summed over both sides
     * @param string $spoken as one tenth after the other has it: when somebody speaks
     *
     * @return list<array{int, int, float}> first 100 ms, last + 1, and by how many dB at most: above the zone, or below it (negative)
     */
    public function outside(Series $powers, string $spoken): array
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

    /** @return Generator<int, float> dBFS, averaged over the second around each 100 ms that counts */
    private function levels(Series $powers, string $spoken): Generator
    {
        $n = \count($powers);
        for ($first = 0; $first < $n; $first += Series::AT_ONCE) {
            $before = max(0, $first - self::HALF_WINDOW);
            $some = $powers->slice($before, $first - $before + Series::AT_ONCE + self::HALF_WINDOW);
            yield from $this->levelsOf($some, $before, $first, min($n, $first + Series::AT_ONCE), $spoken);
        }
    }

    /**
     * @param array<int, float> $powers from the 100 ms of number $before on
     *
     * @return Generator<int, float> of those from $first to $end that count
     */
    private function levelsOf(array $powers, int $before, int $first, int $end, string $spoken): Generator
    {
        $sums = [0.0];
        $numbers = [0];
        $counts = [];
        foreach ($powers as $i => $power) {
            $counts[$i] = $power > self::SILENT && (!$this->isSpeech || "\1" === ($spoken[$before + $i] ?? ''));
            $sums[] = $sums[$i] + ($counts[$i] ? $power : 0.0);
            $numbers[] = $numbers[$i] + ($counts[$i] ? 1 : 0);
        }
        $n = \count($powers);
        for ($i = $first - $before; $i < $end - $before; ++$i) {
            if ($counts[$i]) {
                $from = max(0, $i - self::HALF_WINDOW);
                $to = min($n, $i + self::HALF_WINDOW);
                // Half of it, since an average level is that of one side.
                yield $before + $i => Gating::loudness(0.5 * ($sums[$to] - $sums[$from]) / max(1, $numbers[$to] - $numbers[$from]));
            }
        }
    }
}
