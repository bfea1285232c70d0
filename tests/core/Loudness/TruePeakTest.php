<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\TruePeak;
use Wattage\Core\Signal\SampleLayout;
use Wattage\Tests\support\AnnexTwo;

final class TruePeakTest extends TestCase
{
    /** EBU Tech 3341, cases 15 to 19, tolerance +0.2/−0.4; frequencies, phases and levels recalled from memory [M]. */
    #[DataProvider('cases')]
    #[TestDox('EBU Tech 3341 [M], true peak: $_dataName')]
    public function testSinesBetweenTheSamples(int $division, float $degrees, float $amplitude, float $expected): void
    {
        $frames = 24_000;
        $samples = [];
        for ($i = 0; $i < $frames; ++$i) {
            $fade = min(1.0, $i / 2400, ($frames - $i) / 2400);
            $samples[] = $fade * $amplitude * sin(2.0 * \M_PI * $i / $division + deg2rad($degrees));
        }
        $meter = new LoudnessMeter(SampleLayout::float32(1), 48_000);
        $meter->push(pack('g*', ...$samples));
        $peak = $meter->finish()->truePeak ?? -99.0;
        self::assertGreaterThanOrEqual($expected - 0.4, $peak);
        self::assertLessThanOrEqual($expected + 0.2, $peak);
    }

    /** @return iterable<string, array{int, float, float, float}> */
    public static function cases(): iterable
    {
        yield '15, fs/4 at 0°' => [4, 0.0, 0.5, -6.0];
        yield '16, fs/4 at 45°' => [4, 45.0, 0.5, -6.0];
        yield '17, fs/6 at 60°' => [6, 60.0, 0.5, -6.0];
        yield '18, fs/8 at 67.5°' => [8, 67.5, 0.5, -6.0];
        yield '19, fs/4 at 45°, over full scale' => [4, 45.0, 1.41, 3.0];
    }

    /**
     * ITU-R BS.1770, Annex 2: the quick way finds what the plain sum over all taps, phases and samples finds.
     *
     * @param list<int> $samples
     */
    #[DataProvider('sounds')]
    public function testNothingIsOverlooked(array $samples): void
    {
        $peak = new TruePeak(1);
        foreach (array_chunk($samples, 480) as $chunk) {
            $loudest = max(array_map(abs(...), $chunk));
            $peak->mayRise(0, $loudest) || \count($chunk) < TruePeak::TAPS ? $peak->push(0, $chunk, $loudest) : $peak->pass(0, \array_slice($chunk, -TruePeak::TAPS), $loudest);
        }
        $peak->finish();
        self::assertEqualsWithDelta(self::plainly($samples), $peak->highest(), 1e-6);
    }

    /** @return iterable<string, array{list<int>}> */
    public static function sounds(): iterable
    {
        $random = new Randomizer(new Mt19937(11));
        $make = self::made(...);
        yield 'noise' => [$make(static fn (): float => $random->getInt(-32768, 32767))];
        yield 'limited noise' => [$make(static fn (): float => max(-20_000, min(20_000, $random->getInt(-60_000, 60_000))))];
        yield 'bursts' => [$make(static fn (int $i): float => $random->getInt(-9000, 9000) * (0 === intdiv($i, 700) % 3 ? 3.0 : 0.01))];
        yield 'one sample' => [$make(static fn (int $i): float => 5000 === $i ? 30_000 : 0)];
        yield 'a step at the very end' => [$make(static fn (int $i): float => $i > 9995 ? 30_000 : 0)];
        yield 'a loud end of a chunk, then quiet' => [$make(static fn (int $i): float => ($i % 960) < 480 ? ($i % 480 > 474 ? 28_000 * (-1) ** intdiv($i, 2) : 100) : 5)];
        foreach ([50, 440, 5000, 11_990, 19_000] as $hz) {
            yield "sine of {$hz} Hz" => [$make(static fn (int $i): float => 31_000 * sin(2 * \M_PI * $hz * $i / 48_000 + 0.7) * min(1, $i / 5000))];
        }
        foreach (range(1, 12) as $seed) {
            $at = new Randomizer(new Mt19937($seed));
            $smooth = 0.0;
            yield "random walk {$seed}" => [$make(static function () use (&$smooth, $at, $seed): float {
                $smooth = 0.98 ** $seed * $smooth + $at->getInt(-3000, 3000);

                return max(-32768, min(32767, $smooth));
            })];
        }
    }

    /** @param list<int> $samples */
    private static function plainly(array $samples): float
    {
        $phases = [...AnnexTwo::PHASES, ...array_map(array_reverse(...), AnnexTwo::PHASES)];
        $row = [...array_fill(0, 11, 0), ...$samples, ...array_fill(0, 11, 0)];
        $highest = max(array_map(abs(...), $samples));
        for ($i = 11, $n = \count($row); $i < $n; ++$i) {
            foreach ($phases as $taps) {
                $sum = 0;
                foreach ($taps as $k => $tap) {
                    $sum += $tap * $row[$i - 11 + $k];
                }
                $highest = max($highest, abs($sum) / TruePeak::UNIT);
            }
        }

        return $highest;
    }

    /**
     * @param callable(int): (int|float) $at
     *
     * @return list<int>
     */
    private static function made(callable $at): array
    {
        return array_map(static fn (int $i): int => (int) round($at($i)), range(0, 9999));
    }
}
