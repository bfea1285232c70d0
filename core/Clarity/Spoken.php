<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Generator;
use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\ThirdOctaves;

/** Powers by band of the speech and of everything else, of those 100 ms in which somebody speaks: gone through a few minutes at a time, and never all at once. */
final class Spoken
{
    private const AT_ONCE = 3000;
    private const ROW = ThirdOctaves::COUNT;

    /** @var list<float> power that each byte stands for */
    private readonly array $powers;

    /**
     * @param string $active one byte for each 100 ms: 1 where somebody speaks
     * @param array<string, array{string, float}> $voice rows of bytes and what their power is multiplied by, of each track that speaks
     * @param array<string, array{string, float}> $rest likewise, of each that does not
     */
    public function __construct(private readonly string $active, private readonly array $voice, private readonly array $rest)
    {
        $this->powers = BandLevel::powers();
    }

    /**
     * How loud the speech is as a whole.
     *
     * @param float $gate what is softer than this part of the mean does not count
     *
     * @return ?float power over all bands; null where there is none
     */
    public function loudness(float $gate): ?float
    {
        $totals = [];
        for ($from = 0, $n = \strlen($this->active); $from < $n; $from += self::AT_ONCE) {
            foreach ($this->rows($this->voice, $from, min($n, $from + self::AT_ONCE)) as $row) {
                $totals[] = array_sum($row);
            }
        }
        $mean = [] === $totals ? 0.0 : array_sum($totals) / \count($totals);
        $loud = array_filter($totals, static fn (float $total): bool => $total > $gate * $mean);

        return [] === $loud ? null : array_sum($loud) / \count($loud);
    }

    /**
     * @param int $step every so many of those at which somebody speaks
     * @param int $around how many to either side are the sentence
     * @param int $before how many before and after are the moment of everything else
     *
     * @return Generator<int, ?array{array<int, float>, array<int, float>}> by number of the 100 ms: mean powers of the speech around it and of the rest, of each step's first; null for the others
     */
    public function each(int $step, int $around, int $before, int $after): Generator
    {
        $n = \strlen($this->active);
        for ($from = 0; $from < $n; $from += self::AT_ONCE) {
            $to = min($n, $from + self::AT_ONCE);
            $voice = $this->rows($this->voice, max(0, $from - $around), min($n, $to + $around + 1));
            $rest = $this->rows($this->rest, max(0, $from - $before), min($n, $to + $after));
            $last = -$step;
            for ($k = $from; $k < $to; ++$k) {
                if ("\1" !== $this->active[$k]) {
                    continue;
                }
                if ($k - $last < $step) {
                    yield $k => null;
                    continue;
                }
                $last = $k;
                yield $k => [self::mean($voice, $k - $around, $k + $around), self::mean($rest, $k - $before, $k + $after)];
            }
        }
    }

    /**
     * Mean powers of a stretch.
     *
     * @return array{array<int, float>, array<string, array<int, float>>} of the speech, and of every other track
     */
    public function means(int $from, int $to): array
    {
        $rest = [];
        foreach ($this->rest as $id => $track) {
            $rest[(string) $id] = self::mean($this->rows([$track], $from, $to), $from, $to - 1);
        }

        return [self::mean($this->rows($this->voice, $from, $to), $from, $to - 1), $rest];
    }

    /**
     * @param array<array-key, array{string, float}> $tracks
     *
     * @return array<int, array<int, float>> sums by number of the 100 ms, of those at which somebody speaks
     */
    private function rows(array $tracks, int $from, int $to): array
    {
        $rows = [];
        for ($k = $from; $k < $to; ++$k) {
            if ("\1" === $this->active[$k]) {
                $rows[$k] = array_fill(0, self::ROW, 0.0);
            }
        }
        $powers = $this->powers;
        foreach ([] === $rows ? [] : $tracks as [$bytes, $factor]) {
            $some = substr($bytes, $from * self::ROW, ($to - $from) * self::ROW);
            if ('' === trim($some, "\0")) {
                continue;
            }
            /** @var array<int, int> $levels */
            $levels = unpack('C*', $some);
            foreach ($rows as $k => $row) {
                for ($band = 0, $i = ($k - $from) * self::ROW + 1; $band < self::ROW; ++$band, ++$i) {
                    $row[$band] += $factor * $powers[$levels[$i] ?? 0];
                }
                $rows[$k] = $row;
            }
        }

        return $rows;
    }

    /**
     * @param array<int, array<int, float>> $rows
     *
     * @return array<int, float>
     */
    private static function mean(array $rows, int $from, int $to): array
    {
        $sum = array_fill(0, self::ROW, 0.0);
        $count = 0;
        for ($k = $from; $k <= $to; ++$k) {
            if (isset($rows[$k])) {
                ++$count;
                foreach ($rows[$k] as $band => $power) {
                    $sum[$band] += $power;
                }
            }
        }
        foreach ($sum as $band => $power) {
            $sum[$band] = $power / max(1, $count);
        }

        return $sum;
    }
}
