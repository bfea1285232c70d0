<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

use Wattage\Core\Loudness\MixFigures;
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

    /** A shorter stretch is not listed, and a clear moment within one does not part it. */
    private const SHORTEST = 5;
    private const LONGEST_GAP = 2;

    /** Tenths of a window before and after the one it is of. */
    private const BEFORE = 2;
    private const AFTER = 1;

    /**
     * @param array<int, float> $values LU by number of the 100 ms; only where somebody speaks
     * @param list<array{int, int}> $runs buried: first 100 ms, last + 1
     * @param array<int, float> $speech power in the window of each
     * @param array<string, array<int, float>> $rest the same of each track that is not speech, by id
     */
    private function __construct(private Mix $mix, private float $wanted, public array $values, private array $runs, private array $speech, private array $rest)
    {
    }

    /**
     * @param list<Span> $speech timeline samples at which somebody speaks
     * @param float $wanted LU
     */
    public static function of(Mix $mix, MixFigures $figures, array $speech, float $wanted): self
    {
        $active = SpeechTimes::tenths($speech, intdiv($mix->rate, TrackPower::TENTHS_PER_SECOND), $figures->count);
        $voice = self::windowed($figures->powersOf(Stem::Speech), $active);
        $rest = [];
        foreach ($mix->tracks as $id => $track) {
            if (Stem::Speech !== $track->stem && !$track->muted) {
                $rest[$id] = self::windowed($figures->powersOfTrack((string) $id), $active);
            }
        }
        $sum = array_fill_keys(array_keys($voice), 0.0);
        foreach ($rest as $row) {
            foreach ($row as $k => $power) {
                $sum[$k] += $power;
            }
        }
        $values = [];
        foreach ($voice as $k => $power) {
            $values[$k] = self::lu($power, $sum[$k]);
        }

        return new self($mix, $wanted, $values, self::runs($values, $wanted), $voice, $rest);
    }

    /** @return ?float part of the speech that is as clear as wanted, 0 … 1; null where nobody speaks */
    public function clearPart(): ?float
    {
        $clear = array_filter($this->values, fn (float $value): bool => $value >= $this->wanted);

        return [] === $this->values ? null : \count($clear) / \count($this->values);
    }

    /** @return list<Buried> in the order of time */
    public function buried(): array
    {
        $frames = intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);

        return array_map(function (array $run) use ($frames): Buried {
            $fix = new Fix($this->mix, $this->wanted, $this->within($this->speech, $run), array_map(fn (array $row): array => $this->within($row, $run), $this->rest));

            return new Buried(
                Span::of($run[0] * $frames, $run[1] * $frames),
                min($this->within($this->values, $run)),
                $fix->covering(),
                ...$fix->dip(),
                lift: $fix->lift(),
            );
        }, $this->runs);
    }

    /**
     * @param list<string> $tracks that can be lowered
     *
     * @return ?float dB by which they must be lowered over a span of speech, 0 where it is clear already; null where no depth does
     */
    public function dipFor(Span $span, array $tracks, float $wanted): ?float
    {
        $frames = intdiv($this->mix->rate, TrackPower::TENTHS_PER_SECOND);
        $run = [intdiv($span->from + intdiv($frames, 2), $frames), intdiv($span->to + intdiv($frames, 2), $frames)];
        $fix = new Fix($this->mix, $wanted, $this->within($this->speech, $run), array_map(fn (array $row): array => $this->within($row, $run), $this->rest));

        return $fix->depth($tracks);
    }

    /**
     * @param array<int, float> $row
     * @param array{int, int} $run
     *
     * @return non-empty-array<int, float>
     */
    private function within(array $row, array $run): array
    {
        $part = [];
        for ($k = $run[0]; $k < $run[1]; ++$k) {
            // A short pause within the stretch has no value of its own.
            if (isset($row[$k])) {
                $part[$k] = $row[$k];
            }
        }

        return [] === $part ? [$run[0] => 0.0] : $part;
    }

    /**
     * @param array<int, float> $powers
     * @param array<int, true> $active
     *
     * @return array<int, float> summed over the active part of each window
     */
    private static function windowed(array $powers, array $active): array
    {
        // What is no speech is put to nothing first, so that the four tenths of a window (BEFORE, itself, AFTER) are summed without asking.
        $spoken = array_fill(0, \count($powers) + self::BEFORE + self::AFTER, 0.0);
        foreach ($active as $k => $_) {
            $spoken[$k + self::BEFORE] = $powers[$k];
        }
        $sums = [];
        foreach ($active as $k => $_) {
            $sums[$k] = $spoken[$k] + $spoken[$k + 1] + $spoken[$k + 2] + $spoken[$k + 3];
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

    /**
     * @param array<int, float> $values
     *
     * @return list<array{int, int}>
     */
    private static function runs(array $values, float $wanted): array
    {
        $runs = [];
        foreach ($values as $k => $value) {
            if ($value >= $wanted) {
                continue;
            }
            $last = array_pop($runs);
            if (null !== $last && $k - $last[1] > self::LONGEST_GAP) {
                $runs[] = $last;
                $last = null;
            }
            $runs[] = [$last[0] ?? $k, $k + 1];
        }

        return array_values(array_filter($runs, static fn (array $run): bool => $run[1] - $run[0] >= self::SHORTEST));
    }
}
