<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Generator;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\TrackPower;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/**
 * How far the speech stands above everything else, every 100 ms while somebody speaks: momentary loudness of the one minus that of
 * the other. Where a window of 400 ms reaches past the speech, only its part with speech counts, for both. Own definition, on the
 * weighting of ITU-R BS.1770.
 */
final readonly class Clearance
{
    /** LU; more, or less, says nothing more. */
    public const MOST = 60.0;
    /** As many as one edit can clear. */
    public const MOST_BURIED = 1000;

    /** Tenths of a window before and after the one it is of. */
    private const BEFORE = 2;
    private const AFTER = 1;

    /**
     * @param Series $values LU; 0 where nobody speaks
     * @param ?float $clearPart part of the speech that is as clear as wanted, 0 … 1; null where nobody speaks
     * @param list<array{int, int}> $runs buried: first 100 ms, last + 1
     * @param string $active one byte for each 100 ms: 1 where somebody speaks
     * @param Series $speech power of the speech
     * @param array<string, Series> $rest power of each track that is not speech, by id
     */
    private function __construct(
        private Mix $mix,
        private float $wanted,
        private Series $values,
        public ?float $clearPart,
        private array $runs,
        private string $active,
        private Series $speech,
        private array $rest,
    ) {
    }

    /**
     * @param list<Span> $speech timeline samples at which somebody speaks
     * @param float $wanted LU
     */
    public static function of(Mix $mix, MixFigures $figures, array $speech, float $wanted): self
    {
        $active = SpeechTimes::tenths($speech, intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), $figures->count);
        $voice = $figures->powersOf(Stem::Speech);
        $rest = [];
        foreach ($mix->tracks as $id => $track) {
            if (Stem::Speech !== $track->stem && !$track->muted) {
                $rest[$id] = $figures->powersOfTrack((string) $id);
            }
        }
        $all = Series::sum(array_map(static fn (Series $row): array => [$row, 1.0], array_values($rest)), $figures->count);
        $packed = '';
        $low = new LowRuns();
        $spoken = $clear = 0;
        for ($from = 0; $from < $figures->count; $from += Series::AT_ONCE) {
            $to = min($figures->count, $from + Series::AT_ONCE);
            $values = array_fill(0, $to - $from, 0.0);
            $sums = self::windowed($all, $active, $from, $to);
            foreach (self::windowed($voice, $active, $from, $to) as $k => $power) {
                $value = self::lu($power, $sums[$k]);
                $values[$k - $from] = $value;
                ++$spoken;
                $value >= $wanted ? ++$clear : $low->add($k, $value);
            }
            $packed .= Series::packed($values);
        }
        $runs = array_map(static fn (array $run): array => [$run[0], $run[1]], $low->long());

        return new self($mix, $wanted, Series::fromBytes($packed), 0 === $spoken ? null : $clear / $spoken, $runs, $active, $voice, $rest);
    }

    /** @return ?float LU; null where nobody speaks */
    public function at(int $tenth): ?float
    {
        return "\1" === ($this->active[$tenth] ?? '') ? $this->values[$tenth] : null;
    }

    /** @return Generator<int, list<float>> LU of each run of speech, by the number of its first 100 ms */
    public function runs(): Generator
    {
        $run = [];
        $first = 0;
        foreach ($this->values->pieces() as $from => $piece) {
            foreach ($piece as $i => $value) {
                if ("\1" === $this->active[$from + $i]) {
                    $first = [] === $run ? $from + $i : $first;
                    $run[] = $value;
                } elseif ([] !== $run) {
                    yield $first => $run;
                    $run = [];
                }
            }
        }
        if ([] !== $run) {
            yield $first => $run;
        }
    }

    /** @return list<Span> stretches that are buried beyond those of {@see buried()} */
    public function moreBuried(): array
    {
        $frames = intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);

        return array_map(static fn (array $run): Span => Span::of($run[0] * $frames, $run[1] * $frames), \array_slice($this->runs, self::MOST_BURIED));
    }

    /** @return list<Buried> in the order of time, the first MOST_BURIED */
    public function buried(): array
    {
        $frames = intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);

        return array_map(function (array $run) use ($frames): Buried {
            $fix = $this->fix($run, $this->wanted);

            return new Buried(
                Span::of($run[0] * $frames, $run[1] * $frames),
                $this->worst(...$run),
                $fix->covering(),
                ...$fix->dip(),
                lift: $fix->lift(),
            );
        }, \array_slice($this->runs, 0, self::MOST_BURIED));
    }

    /** @return array<int, float> power of the speech by number of the 100 ms, of those from $from to $to in which somebody speaks; windows of 400 ms, only their part with speech */
    public function speechBetween(int $from, int $to): array
    {
        return self::windowed($this->speech, $this->active, $from, $to);
    }

    /** @return array<string, array<int, float>> the same of each track that is not speech, by id */
    public function restBetween(int $from, int $to): array
    {
        return array_map(fn (Series $row): array => self::windowed($row, $this->active, $from, $to), $this->rest);
    }

    /** @return array<int, float> the same of any row of powers */
    public function between(Series $powers, int $from, int $to): array
    {
        return self::windowed($powers, $this->active, $from, $to);
    }

    private function worst(int $from, int $to): float
    {
        $worst = self::MOST;
        for ($k = $from; $k < $to; ++$k) {
            $worst = min($worst, $this->at($k) ?? $worst);
        }

        return $worst;
    }

    /** @param array{int, int} $run */
    private function fix(array $run, float $wanted): Fix
    {
        $within = function (Series $row) use ($run): array {
            $part = self::windowed($row, $this->active, ...$run);

            return [] === $part ? [$run[0] => 0.0] : $part;
        };

        return new Fix($this->mix, $wanted, $within($this->speech), array_map($within, $this->rest));
    }

    /**
     * Powers summed over the active part of each window; a pause has none of its own.
     *
     * @return array<int, float> by number of the 100 ms, of those from $from to $to in which somebody speaks
     */
    private static function windowed(Series $powers, string $active, int $from, int $to): array
    {
        $to = min($to, \strlen($active));
        $first = max(0, $from - self::BEFORE);
        $some = $powers->slice($first, $to + self::AFTER - $first);
        // What is no speech is put to nothing first, so that the four tenths of a window (BEFORE, itself, AFTER) are summed without asking.
        $spoken = array_fill(0, max(0, $to - $from) + self::BEFORE + self::AFTER, 0.0);
        foreach ($some as $i => $power) {
            if ("\1" === $active[$first + $i]) {
                $spoken[$first + $i - $from + self::BEFORE] = $power;
            }
        }
        $sums = [];
        for ($k = $from, $i = 0; $k < $to; ++$k, ++$i) {
            if ("\1" === $active[$k]) {
                $sums[$k] = $spoken[$i] + $spoken[$i + 1] + $spoken[$i + 2] + $spoken[$i + 3];
            }
        }

        return $sums;
    }

    private static function lu(float $speech, float $rest): float
    {
        return match (true) {
            $rest <= 0.0 => self::MOST,
            $speech <= 0.0 => -self::MOST,
            default => max(-self::MOST, min(self::MOST, 10.0 * log10($speech / $rest))),
        };
    }
}
