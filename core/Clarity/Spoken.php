<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Generator;
use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\ThirdOctaves;

/**
 * Powers by band of the speech and of everything else, of those 100 ms in which somebody speaks: a minute of the timeline at a time, which can be told by what it depends
 * on, and never all at once. Rows lie one after another in one flat array, which is what makes an hour of eight tracks quick.
 */
final class Spoken
{
    /** Tenths of a minute, of which the first is an even one. */
    public const MINUTE = 600;
    private const ROW = ThirdOctaves::COUNT;
    /** Tenths that a stretch is judged by when what covers it is looked for. */
    private const SAMPLES = 8;

    /** Spoken tenths to either side that are the sentence around a moment. */
    private const SENTENCE = 10;
    /** Spoken tenths of the window of everything else before and after the one it is of. */
    private const BEFORE = 2;
    private const AFTER = 1;
    /** Every other 100 ms is worked out, and holds for two. */
    private const STEP = 2;
    /** Of so many spoken tenths one says how loud all of it is. */
    private const SAMPLED = 5;

    /** @var array<string, array{string, array<int, float>}> rows of bytes and the power that each byte stands for, of each track that speaks */
    private readonly array $voice;
    /** @var array<string, array{string, array<int, float>}> likewise, of each that does not */
    private readonly array $rest;
    /** @var array<string, array{string, array<int, float>}> likewise, of each that is looked at apart from these */
    private readonly array $apart;
    /** @var list<array{int, int}> runs of speech: first 100 ms and last + 1 */
    private array $runs = [];
    /** @var array<int, int> number of the first run that reaches into it, by minute */
    private array $minutes = [];

    /**
     * @param string $active one byte for each 100 ms: 1 where somebody speaks
     * @param array<string, array{string, float}> $voice rows of bytes and what their power is multiplied by, of each track that speaks
     * @param array<string, array{string, float}> $rest likewise, of each that does not
     * @param array<string, array{string, float}> $apart likewise, of what is to be had apart from these
     */
    public function __construct(private readonly string $active, array $voice, array $rest, array $apart = [])
    {
        $powers = BandLevel::powers();
        $tables = static function (array $tracks) use ($powers): array {
            /** @var array<string, array{string, float}> $tracks */
            return array_map(static fn (array $track): array => [$track[0], array_map(static fn (float $power): float => $track[1] * $power, $powers)], $tracks);
        };
        $this->voice = $tables($voice);
        $this->rest = $tables($rest);
        $this->apart = $tables($apart);
        preg_match_all('/\x01+/', $active, $found, \PREG_OFFSET_CAPTURE);
        foreach ($found[0] as $number => [$run, $first]) {
            $end = $first + \strlen($run);
            $this->runs[] = [$first, $end];
            for ($minute = intdiv($first, self::MINUTE); $minute * self::MINUTE < $end; ++$minute) {
                $this->minutes[$minute] ??= $number;
            }
        }
    }

    /** @return list<int> numbers of the minutes in which somebody speaks */
    public function minutes(): array
    {
        return array_keys($this->minutes);
    }

    /** All that the moments of a minute depend on, as a hash. */
    public function state(int $minute): string
    {
        $hash = hash_init('xxh128');
        $runs = $this->around($minute);
        hash_update($hash, serialize($runs));
        foreach ([$this->voice, $this->rest] as $tracks) {
            hash_update($hash, 'tracks');
            foreach ($tracks as [$bytes, $powers]) {
                $spoken = self::bytesOf($bytes, $runs);
                '' === trim($spoken, "\0") || hash_update($hash, "{$powers[255]} {$spoken}");
            }
        }

        return hash_final($hash);
    }

    /**
     * How loud the speech is as a whole, to a tenth of a decibel: so a word that is made louder changes nothing a minute away.
     *
     * @param float $gate what is softer than this part of the mean does not count
     *
     * @return ?float power over all bands; null where there is none
     */
    public function loudness(float $gate): ?float
    {
        $totals = [];
        foreach ($this->minutes() as $minute) {
            $total = 0.0;
            $sampled = [];
            foreach ($this->between($minute, $minute * self::MINUTE, ($minute + 1) * self::MINUTE) as [$first, $end]) {
                for ($k = $first; $k < $end; $k += self::SAMPLED) {
                    $sampled[] = [$k, $k + 1];
                }
            }
            foreach ($this->sums($this->voice, $sampled) as $i => $power) {
                $total += $power;
                if (self::ROW - 1 === $i % self::ROW) {
                    $totals[] = $total;
                    $total = 0.0;
                }
            }
        }
        $mean = [] === $totals ? 0.0 : array_sum($totals) / \count($totals);
        $loud = array_filter($totals, static fn (float $total): bool => $total > $gate * $mean);

        return [] === $loud ? null : 10.0 ** (round(100.0 * log10(array_sum($loud) / \count($loud))) / 100.0);
    }

    /** @return Generator<int, ?array{array<int, float>, array<int, float>, array<int, float>}> by number of the 100 ms: mean powers of the speech around it, of the rest and of what is apart, of every other one; null for those between, which are as the one before */
    public function moments(): Generator
    {
        foreach ($this->minutes() as $minute) {
            yield from $this->momentsOf($minute);
        }
    }

    /** @return Generator<int, ?array{array<int, float>, array<int, float>, array<int, float>}> those of one minute, of which the first is worked out */
    public function momentsOf(int $minute): Generator
    {
        $runs = $this->around($minute);
        $voice = $this->sums($this->voice, $runs);
        $rest = $this->sums($this->rest, $runs);
        $apart = [] === $this->apart ? null : $this->sums($this->apart, $runs);
        $nothing = array_fill(0, self::ROW, 0.0);
        $sentence = new Sliding($voice, self::ROW);
        $last = intdiv(\count($voice), self::ROW);
        $from = $minute * self::MINUTE;
        $to = $from + self::MINUTE;
        $place = 0;
        foreach ($runs as [$first, $end]) {
            $begin = $place - $first;
            $stop = $begin + $end;
            $least = max($first, $from);
            for ($k = $least, $most = min($end, $to); $k < $most; ++$k) {
                $place = $begin + $k;
                if (0 !== $k % self::STEP && $k !== $least) {
                    yield $k => null;
                    continue;
                }
                $window = [max($begin + $first, $place - self::BEFORE), min($stop, $place + self::AFTER + 1)];
                yield $k => [
                    $sentence->mean(max(0, $place - self::SENTENCE), min($last, $place + self::SENTENCE + 1)),
                    self::mean($rest, ...$window),
                    null === $apart ? $nothing : self::mean($apart, ...$window),
                ];
            }
            $place = $stop;
        }
    }

    /**
     * Mean powers of a stretch, from some moments of it.
     *
     * @return array{array<int, float>, array<string, array<int, float>>} of the speech, and of every other track
     */
    public function means(int $from, int $to): array
    {
        $step = max(1, intdiv($to - $from, self::SAMPLES));
        $runs = [];
        for ($k = $from; $k < $to; $k += $step) {
            "\1" === $this->active[$k] && $runs[] = [$k, $k + 1];
        }
        $others = [];
        foreach ($this->rest as $id => $track) {
            $others[$id] = self::mean($this->sums([$track], $runs), 0, \count($runs));
        }

        return [self::mean($this->sums($this->voice, $runs), 0, \count($runs)), $others];
    }

    /** @return list<array{int, int}> runs of speech in a minute, and as much before and after it as its sentences reach */
    private function around(int $minute): array
    {
        [$from, $to] = [$minute * self::MINUTE, ($minute + 1) * self::MINUTE];
        $number = $this->minutes[$minute];
        for ($left = self::SENTENCE, $i = $number; $left > 0 && $i >= 0; --$i) {
            [$first, $end] = $this->runs[$i];
            $until = min($end, $minute * self::MINUTE);
            if ($until > $first) {
                $from = max($first, $until - $left);
                $left -= $until - $from;
            }
        }
        for ($left = self::SENTENCE, $i = $number; $left > 0 && isset($this->runs[$i]); ++$i) {
            [$first, $end] = $this->runs[$i];
            $since = max($first, ($minute + 1) * self::MINUTE);
            if ($since < $end) {
                $to = min($end, $since + $left);
                $left -= $to - $since;
            }
        }

        return $this->between($minute, $from, $to);
    }

    /** @return list<array{int, int}> runs of speech between two tenths around a minute */
    private function between(int $minute, int $from, int $to): array
    {
        for ($i = $this->minutes[$minute]; $i > 0 && $this->runs[$i - 1][1] > $from; --$i) {
        }
        $between = [];
        for (; isset($this->runs[$i]) && $this->runs[$i][0] < $to; ++$i) {
            $between[] = [max($from, $this->runs[$i][0]), min($to, $this->runs[$i][1])];
        }

        return $between;
    }

    /**
     * @param array<array-key, array{string, array<int, float>}> $tracks
     * @param list<array{int, int}> $runs
     *
     * @return array<int, float> row after row of those runs
     */
    private function sums(array $tracks, array $runs): array
    {
        $sums = array_fill(0, self::ROW * array_sum(array_map(static fn (array $run): int => $run[1] - $run[0], $runs)), 0.0);
        foreach ($tracks as [$bytes, $powers]) {
            $spoken = self::bytesOf($bytes, $runs);
            if ('' === trim($spoken, "\0")) {
                continue;
            }
            $i = 0;
            /** @var array<int, int> $levels */
            $levels = unpack('C*', $spoken);
            foreach ($levels as $level) {
                $sums[$i] += $powers[$level];
                ++$i;
            }
        }

        return $sums;
    }

    /** @param list<array{int, int}> $runs */
    private static function bytesOf(string $bytes, array $runs): string
    {
        $spoken = '';
        foreach ($runs as [$first, $end]) {
            $spoken .= str_pad(substr($bytes, $first * self::ROW, ($end - $first) * self::ROW), ($end - $first) * self::ROW, "\0");
        }

        return $spoken;
    }

    /**
     * @param array<int, float> $rows
     *
     * @return array<int, float>
     */
    private static function mean(array $rows, int $from, int $to): array
    {
        $sum = array_fill(0, self::ROW, 0.0);
        for ($row = $from, $i = $from * self::ROW; $row < $to; ++$row) {
            for ($band = 0; $band < self::ROW; ++$band, ++$i) {
                $sum[$band] += $rows[$i];
            }
        }
        $part = 1.0 / max(1, $to - $from);
        for ($band = 0; $band < self::ROW; ++$band) {
            $sum[$band] *= $part;
        }

        return $sum;
    }
}
