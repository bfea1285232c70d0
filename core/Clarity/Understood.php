<?php

declare(strict_types=1);

namespace Wattage\Core\Clarity;

use Wattage\Core\Bands\Fourier;

/**
 * How well speech is understood in a programme, judged from the two sounds themselves: STOI (Taal, Hendriks, Heusdens, Jensen, IEEE Transactions on Audio, Speech, and
 * Language Processing 19, 2011) and its extended form (Jensen, Taal, IEEE/ACM Transactions 24, 2016). Lengths and constants recalled from memory [M].
 *
 * It knows nothing of {@see SpeechIndex}, and so is a check of it.
 */
final class Understood
{
    /** Samples per second that both sounds must have. */
    public const RATE = 10_000;

    private const FRAME = 256;
    private const HOP = 128;
    private const TRANSFORM = 512;
    private const BANDS = 15;
    private const LOWEST_CENTRE = 150.0;
    /** Frames of a segment: 384 ms. */
    private const SEGMENT = 30;
    /** Frames so much softer than the loudest are no speech, dB. */
    private const RANGE = 40.0;
    /** What is softer than this is not even that: about −75 dBFS, dB of a frame's squares. */
    private const SILENCE = -57.0;
    /** What noise adds counts up to a distortion of so many dB. */
    private const DISTORTION = -15.0;

    private const ROUNDING = 1e-9;

    private readonly Fourier $fourier;
    /** @var list<float> Hann, without its zeros */
    private array $window = [];
    /** @var list<array{int, int}> first bin and last + 1 of each band */
    private array $edges = [];

    public function __construct()
    {
        $this->fourier = new Fourier(self::TRANSFORM);
        for ($i = 1; $i <= self::FRAME; ++$i) {
            $this->window[] = 0.5 - 0.5 * cos(2.0 * \M_PI * $i / (self::FRAME + 1));
        }
        $width = self::RATE / self::TRANSFORM;
        for ($band = 0; $band < self::BANDS; ++$band) {
            $centre = self::LOWEST_CENTRE * 2.0 ** ($band / 3.0);
            $this->edges[] = [(int) round($centre * 2.0 ** (-1 / 6) / $width), (int) round($centre * 2.0 ** (1 / 6) / $width)];
        }
    }

    /**
     * @param list<float> $speech alone, at {@see RATE}
     * @param list<float> $programme as long, with the same speech in it
     *
     * @return ?array{float, float, int} STOI and extended STOI, about 0 … 1, and how many segments they are a mean of; null where there are not 384 ms of speech
     */
    public function of(array $speech, array $programme): ?array
    {
        [$speech, $programme] = $this->spoken($speech, $programme);
        $clean = $heard = [];
        for ($at = 0, $n = \count($speech) - self::FRAME; $at < $n; $at += self::HOP) {
            [$one, $two] = $this->bands(\array_slice($speech, $at, self::FRAME), \array_slice($programme, $at, self::FRAME));
            foreach ($one as $band => $amplitude) {
                $clean[$band][] = $amplitude;
                $heard[$band][] = $two[$band];
            }
        }
        $frames = \count($clean[0] ?? []);
        if ($frames < self::SEGMENT) {
            return null;
        }
        $plain = $extended = 0.0;
        for ($from = 0; $from <= $frames - self::SEGMENT; ++$from) {
            $x = array_map(static fn (array $row): array => \array_slice($row, $from, self::SEGMENT), array_values($clean));
            $y = array_map(static fn (array $row): array => \array_slice($row, $from, self::SEGMENT), array_values($heard));
            $plain += self::plain($x, $y);
            $extended += self::extended($x, $y);
        }
        $segments = $frames - self::SEGMENT + 1;

        return [$plain / $segments, $extended / $segments, $segments];
    }

    /**
     * Both sounds without the frames in which nobody speaks.
     *
     * @param list<float> $speech
     * @param list<float> $programme
     *
     * @return array{array<int, float>, array<int, float>}
     */
    private function spoken(array $speech, array $programme): array
    {
        $levels = [];
        for ($at = 0, $n = \count($speech) - self::FRAME; $at < $n; $at += self::HOP) {
            $sum = 0.0;
            foreach ($this->window as $i => $factor) {
                $sum += ($factor * $speech[$at + $i]) ** 2;
            }
            $levels[$at] = 10.0 * log10($sum + 1e-20);
        }
        $threshold = max(self::SILENCE, max([self::SILENCE, ...$levels]) - self::RANGE);
        $kept = array_keys(array_filter($levels, static fn (float $level): bool => $level > $threshold));
        $length = [] === $kept ? 0 : (\count($kept) - 1) * self::HOP + self::FRAME;
        $one = $two = array_fill(0, $length, 0.0);
        foreach ($kept as $number => $at) {
            foreach ($this->window as $i => $factor) {
                $one[$number * self::HOP + $i] += $factor * $speech[$at + $i];
                $two[$number * self::HOP + $i] += $factor * $programme[$at + $i];
            }
        }

        return [$one, $two];
    }

    /**
     * @param array<int, float> $one
     * @param array<int, float> $two
     *
     * @return array{list<float>, list<float>} amplitudes by band
     */
    private function bands(array $one, array $two): array
    {
        foreach ($this->window as $i => $factor) {
            $one[$i] *= $factor;
            $two[$i] *= $factor;
        }
        $silence = self::TRANSFORM - self::FRAME;
        $spectra = $this->fourier->powers([...$one, ...array_fill(0, $silence, 0.0)], [...$two, ...array_fill(0, $silence, 0.0)], 1, $this->edges[self::BANDS - 1][1]);

        $one = $this->amplitudes($spectra[0]);
        // Both come from one transform, whose rounding leaves a trace of the one in the other.
        $two = array_map(static fn (float $amplitude, float $other): float => $amplitude < self::ROUNDING * $other ? 0.0 : $amplitude, $this->amplitudes($spectra[1]), $one);

        return [$one, $two];
    }

    /**
     * @param array<int, float> $spectrum
     *
     * @return list<float> by band
     */
    private function amplitudes(array $spectrum): array
    {
        return array_map(static function (array $edge) use ($spectrum): float {
            $sum = 0.0;
            for ($k = $edge[0]; $k < $edge[1]; ++$k) {
                $sum += $spectrum[$k];
            }

            return sqrt($sum);
        }, $this->edges);
    }

    /**
     * @param list<list<float>> $x amplitudes of the speech, by band and frame
     * @param list<list<float>> $y of the programme
     */
    private static function plain(array $x, array $y): float
    {
        $most = 1.0 + 10.0 ** (-self::DISTORTION / 20.0);
        $sum = 0.0;
        foreach ($x as $band => $row) {
            $scale = self::norm($row) / (self::norm($y[$band]) + 1e-20);
            $clipped = array_map(static fn (float $clean, float $heard): float => min($scale * $heard, $most * $clean), $row, $y[$band]);
            $sum += self::product(self::unit($row), self::unit($clipped));
        }

        return $sum / self::BANDS;
    }

    /**
     * Spectra of both, made alike in level band by band and then frame by frame, and compared frame by frame.
     *
     * @param list<list<float>> $x
     * @param list<list<float>> $y
     */
    private static function extended(array $x, array $y): float
    {
        $x = array_map(self::unit(...), $x);
        $y = array_map(self::unit(...), $y);
        $sum = 0.0;
        for ($frame = 0; $frame < self::SEGMENT; ++$frame) {
            $sum += self::product(self::unit(array_column($x, $frame)), self::unit(array_column($y, $frame)));
        }

        return $sum / self::SEGMENT;
    }

    /**
     * Around its mean, of length 1.
     *
     * @param array<int, float> $row
     *
     * @return array<int, float>
     */
    private static function unit(array $row): array
    {
        $mean = array_sum($row) / max(1, \count($row));
        $around = array_map(static fn (float $value): float => $value - $mean, $row);
        $norm = self::norm($around) + 1e-20;

        return array_map(static fn (float $value): float => $value / $norm, $around);
    }

    /** @param array<int, float> $row */
    private static function norm(array $row): float
    {
        return sqrt(self::product($row, $row));
    }

    /**
     * @param array<int, float> $one
     * @param array<int, float> $two
     */
    private static function product(array $one, array $two): float
    {
        $sum = 0.0;
        foreach ($one as $i => $value) {
            $sum += $value * $two[$i];
        }

        return $sum;
    }
}
