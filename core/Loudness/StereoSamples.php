<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/**
 * Stereo as numbers, both channels in one loop: what {@see StereoScan} does for 16-bit files, whose notes on the filters hold here, too. PlainScan
 * does the same the plain way, and a test compares the two.
 */
final class StereoSamples
{
    /** Samples of each channel that are looked at together for the true peak. */
    private const CHUNK = 480;

    /** Filter states smaller than this are silence; left alone they would turn denormal and slow the filter tenfold. */
    private const TINY = 1e-12;

    /** @var array{float, float, float, float, float, float, float, float} shelf and high-pass of the left, then of the right */
    private array $states = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
    private readonly KWeighting $filter;
    private readonly TruePeak $peak;
    private float $highest = 0.0;

    /** @param bool $peaks whether peaks are looked for, which takes half of the time */
    public function __construct(int $rate, private readonly bool $peaks = true)
    {
        $this->filter = KWeighting::atRate($rate);
        $this->peak = new TruePeak(2);
    }

    /**
     * @param array<int, float> $samples interleaved, an even number of frames, but for the last time
     *
     * @return array{float, float} sum over channels and samples of the squares: K-weighted, and plain
     */
    public function measureSamples(array $samples): array
    {
        if ([] === $samples) {
            return [0.0, 0.0];
        }
        if (0 !== \count($samples) % 4) {
            array_push($samples, 0.0, 0.0);
        }
        $this->peaks && $this->lookForPeak($samples);
        [$b0, $b1, $b2, $a1, $a2] = $this->filter->shelf;
        $b1 /= $b0;
        $b2 /= $b0;
        [$c1, $c2] = $this->filter->highPass;
        [$w1, $w2, $v1, $v2, $p1, $p2, $q1, $q2] = $this->states;
        $energy = $squares = 0.0;
        for ($i = 0, $n = \count($samples); $i < $n; $i += 4) {
            $l = $samples[$i];
            $r = $samples[$i + 1];
            $squares += $l * $l + $r * $r;
            $w = $l - $a2 * $w2 - $a1 * $w1;
            $v = $b2 * $w2 - $c2 * $v2 + $b1 * $w1 + $w - $c1 * $v1;
            $y = $v2 - $v1 - $v1 + $v;
            $p = $r - $a2 * $p2 - $a1 * $p1;
            $q = $b2 * $p2 - $c2 * $q2 + $b1 * $p1 + $p - $c1 * $q1;
            $z = $q2 - $q1 - $q1 + $q;
            $energy += $y * $y + $z * $z;
            $l = $samples[$i + 2];
            $r = $samples[$i + 3];
            $squares += $l * $l + $r * $r;
            $w2 = $l - $a2 * $w1 - $a1 * $w;
            $v2 = $b2 * $w1 - $c2 * $v1 + $b1 * $w + $w2 - $c1 * $v;
            $y = $v1 - $v - $v + $v2;
            $p2 = $r - $a2 * $p1 - $a1 * $p;
            $q2 = $b2 * $p1 - $c2 * $q1 + $b1 * $p + $p2 - $c1 * $q;
            $z = $q1 - $q - $q + $q2;
            $energy += $y * $y + $z * $z;
            $w1 = $w2;
            $w2 = $w;
            $v1 = $v2;
            $v2 = $v;
            $p1 = $p2;
            $p2 = $p;
            $q1 = $q2;
            $q2 = $q;
        }
        $this->states = array_map(static fn (float $state): float => abs($state) < self::TINY ? 0.0 : $state, [$w1, $w2, $v1, $v2, $p1, $p2, $q1, $q2]);

        return [$energy * $b0 * $b0, $squares];
    }

    /** @return array{float, float} true peak and sample peak so far, full scale is 1; what only later samples show is not in it */
    public function peaks(): array
    {
        return [$this->peak->highest(), $this->highest];
    }

    /** Looks for peaks from here on. */
    public function forgetPeaks(): void
    {
        $this->peak->forget();
        $this->highest = 0.0;
    }

    /** @return array{float, float} true peak and sample peak, full scale is 1; nothing can be measured after */
    public function finish(): array
    {
        $this->peak->finish();

        return $this->peaks();
    }

    /** @param non-empty-array<int, float> $samples */
    private function lookForPeak(array $samples): void
    {
        $loudest = max(max($samples), -min($samples));
        $this->highest = max($this->highest, $loudest);
        $last = 2 * TruePeak::TAPS;
        if (!$this->peak->mayRise(0, $loudest) && !$this->peak->mayRise(1, $loudest) && \count($samples) >= $last) {
            [$left, $right] = self::split(\array_slice($samples, -$last));
            $this->peak->pass(0, $left, $loudest);
            $this->peak->pass(1, $right, $loudest);

            return;
        }
        for ($from = 0, $n = \count($samples); $from < $n; $from += 2 * self::CHUNK) {
            $channels = self::split(\array_slice($samples, $from, 2 * self::CHUNK));
            foreach ($channels as $channel => $row) {
                $high = [] === $row ? 0.0 : max(max($row), -min($row));
                $this->peak->mayRise($channel, $high) || \count($row) < TruePeak::TAPS ? $this->peak->push($channel, $row, $high) : $this->peak->pass($channel, $row, $high);
            }
        }
    }

    /**
     * @param array<int, float> $samples
     *
     * @return array{list<float>, list<float>}
     */
    private static function split(array $samples): array
    {
        $left = $right = [];
        for ($i = 0, $n = \count($samples); $i < $n; $i += 2) {
            $left[] = $samples[$i];
            $right[] = $samples[$i + 1];
        }

        return [$left, $right];
    }
}
