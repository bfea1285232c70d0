<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Handover;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Wattage\Core\Handover\PeakGuard;
use Wattage\Core\Loudness\TruePeak;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Tests\support\AnnexTwo;
use Wattage\Tests\support\Sound;

/** Never over the ceiling, by the plain sum of ITU-R BS.1770, Annex 2; untouched where there was nothing to do. */
final class PeakGuardTest extends TestCase
{
    private const RATE = 48_000;
    private const CEILING = 0.8912509381337456; // −1 dBTP

    /**
     * @param list<float> $samples stereo
     */
    #[DataProvider('loud')]
    public function testNothingPassesTheCeilingOnceItIsWritten(array $samples): void
    {
        self::assertGreaterThan(self::CEILING, self::highest($samples), 'there is something to do');
        $guarded = self::guarded($samples);
        self::assertCount(\count($samples), $guarded);
        foreach ([SampleFormat::Pcm16, SampleFormat::Pcm24] as $format) {
            $written = self::written($guarded, $format);
            self::assertLessThanOrEqual(0.05, 20.0 * log10(self::highest($written) / self::CEILING), $format->value);
        }
    }

    /** @return iterable<string, array{list<float>}> */
    public static function loud(): iterable
    {
        $random = new Randomizer(new Mt19937(7));
        $noise = static fn (float $level): float => $level * $random->getInt(-1_000_000, 1_000_000) / 1e6;
        foreach ([1.2, 2.0, 6.0] as $level) {
            yield "white noise up to {$level}" => [self::stereo(1.0, static fn (): array => [$noise($level), $noise($level)])];
        }
        yield 'noise that swells and falls' => [self::stereo(2.0, static fn (int $i): array => [$noise(3.0 * sin($i / 9000) ** 2), $noise(1.0)])];
        foreach ([[4, 45.0], [6, 60.0], [3, 20.0], [2.1, 10.0], [480, 0.0]] as [$division, $phase]) {
            yield "a tone of a {$division}th of the rate that comes at once" => [self::stereo(0.5, static fn (int $i): array => array_fill(0, 2, $i < 9000 ? 0.0 : 1.3 * sin(2.0 * \M_PI * $i / $division + deg2rad($phase))))];
        }
        foreach ([1.0, 1.5, 4.0] as $click) {
            yield "single samples of {$click}" => [self::stereo(0.5, static fn (int $i): array => [0 === $i % 2399 ? $click : 0.0, 1000 === $i % 4801 ? -$click : 0.01 * sin($i / 30)])];
        }
        yield 'two samples of opposite sign, the last ones' => [self::stereo(0.3, static fn (int $i): array => [$i > 14_397 ? 1.1 : 0.0, 0.0])];
        yield 'the first sample' => [self::stereo(0.3, static fn (int $i): array => [0 === $i ? 1.4 : 0.0, 0.0])];
        yield 'music, nearly: many tones far over' => [self::stereo(1.5, static fn (int $i): array => [
            0.7 * sin($i / 11) + 0.7 * sin($i / 7.3) + 0.6 * sin($i / 3.1) * sin($i / 4000), 0.9 * sin($i / 13) + 0.5 * sin($i / 2.2),
        ])];
    }

    public function testWhatIsUnderTheCeilingLeavesItBitForBit(): void
    {
        $quiet = self::stereo(1.0, static fn (int $i): array => [0.88 * sin($i / 40), 0.5 * sin($i / 3)]);
        self::assertTrue($quiet === self::guarded($quiet));

        // One peak in the middle: what is far from it is as it was, before and after.
        $peak = $quiet;
        $peak[2 * 12_000] = 1.2;
        $guarded = self::guarded($peak);
        $changed = array_keys(array_filter($peak, static fn (float $sample, int $i): bool => $sample !== $guarded[$i], \ARRAY_FILTER_USE_BOTH));
        $first = intdiv((int) min($changed), 2);
        $last = intdiv((int) max($changed), 2);
        self::assertGreaterThan(12_000 - 288, $first, 'it begins 5 ms before, and a step');
        self::assertLessThan(12_000 + 48_000, $last);
    }

    public function testOnePeakIsLetGoSoonAndASwellSlowly(): void
    {
        $level = self::levelAt(...);
        $still = self::stereo(1.5, static fn (): array => [0.0, 0.25]);
        $short = $still;
        $short[2 * 12_000] = 2.0;
        $long = $still;
        for ($i = 0; $i < 24_000; ++$i) {
            $long[2 * $i] = 2.0 * sin($i / 20);
        }
        $short = self::guarded($short);
        $long = self::guarded($long);
        self::assertEqualsWithDelta(-7.0, $level($short, 12_000), 0.6, 'a single sample of 6 dB, and what lies between');
        self::assertGreaterThan(-0.8, $level($short, 12_000 + 7200), '150 ms after a click');
        self::assertLessThan(-3.0, $level($long, 24_000 + 7200), '150 ms after half a second');
        self::assertGreaterThan(-1.5, $level($long, 24_000 + 47_000));
    }

    public function testItSaysWhatItDid(): void
    {
        $samples = self::stereo(3.0, static fn (int $i): array => [0.2 * sin($i / 9), 0.2 * sin($i / 9)]);
        foreach ([24_000, 30_000, 120_000] as $i => $frame) {
            $samples[2 * $frame] = [1.1, 1.4, 1.2][$i];
        }
        $guard = new PeakGuard(2, self::RATE, self::CEILING);
        self::through($guard, $samples);
        self::assertCount(2, $guard->acts->places, 'two peaks within half a second are one place');
        self::assertEqualsWithDelta(24_000, $guard->acts->places[0][0], 6);
        self::assertEqualsWithDelta(30_000, $guard->acts->places[0][2], 6);
        self::assertEqualsWithDelta(20.0 * log10(1.4 / self::CEILING), $guard->acts->most, 0.3);
        self::assertGreaterThan(0.1, $guard->acts->seconds());
        self::assertLessThan(1.5, $guard->acts->seconds());
    }

    public function testHowItIsCutIntoPiecesDoesNotMatter(): void
    {
        $random = new Randomizer(new Mt19937(3));
        $samples = self::stereo(1.0, static fn (): array => [1.3 * $random->getInt(-1_000_000, 1_000_000) / 1e6, 0.1]);
        $whole = self::guarded($samples);
        foreach ([1237, 20_000] as $piece) {
            self::assertLessThan(-240.0, Sound::residualDbfs($whole, self::guarded($samples, $piece)));
        }
    }

    public function testAMonoSoundIsGuardedLikeOneOfTwoEqualChannels(): void
    {
        $stereo = self::stereo(0.5, static fn (int $i): array => array_fill(0, 2, 1.3 * sin($i / 9)));
        $mono = array_values(array_filter($stereo, static fn (int $i): bool => 0 === $i % 2, \ARRAY_FILTER_USE_KEY));
        $guarded = self::through(new PeakGuard(1, self::RATE, self::CEILING), $mono, 4800);
        self::assertTrue(array_values(array_filter(self::guarded($stereo), static fn (int $i): bool => 0 === $i % 2, \ARRAY_FILTER_USE_KEY)) === $guarded);
    }

    /**
     * @param callable(int): list<float> $at
     *
     * @return list<float>
     */
    private static function stereo(float $seconds, callable $at): array
    {
        $samples = [];
        for ($i = 0, $n = (int) ($seconds * self::RATE); $i < $n; ++$i) {
            array_push($samples, ...$at($i));
        }

        return $samples;
    }

    /**
     * @param array<int, float> $samples
     *
     * @return list<float>
     */
    private static function guarded(array $samples, int $piece = 4800): array
    {
        return self::through(new PeakGuard(2, self::RATE, self::CEILING), $samples, 2 * $piece);
    }

    /**
     * @param array<int, float> $samples
     *
     * @return list<float>
     */
    private static function through(PeakGuard $guard, array $samples, int $piece = 9600): array
    {
        $guarded = [];
        foreach (array_chunk($samples, $piece) as $chunk) {
            array_push($guarded, ...$guard->push($chunk));
        }
        array_push($guarded, ...$guard->finish());

        return $guarded;
    }

    /**
     * @param array<int, float> $samples
     *
     * @return list<float> as a file of whole numbers has them
     */
    private static function written(array $samples, SampleFormat $format): array
    {
        $bytes = '';
        $encoder = new SampleEncoder($format);
        foreach (array_chunk($samples, 4800) as $chunk) {
            $bytes .= $encoder->encode($chunk);
        }
        $size = intdiv($format->bits(), 8);
        $written = [];
        foreach (str_split($bytes, $size) as $sample) {
            [$value] = Sound::integers('V', str_pad($sample, 4, "\0", \STR_PAD_LEFT));
            $written[] = ($value >= 2 ** 31 ? $value - 2 ** 32 : $value) / 2 ** 31;
        }

        return $written;
    }

    /**
     * @param list<float> $samples stereo
     *
     * @return float by all taps, phases and samples, and the samples themselves
     */
    private static function highest(array $samples): float
    {
        $phases = [...AnnexTwo::PHASES, ...array_map(array_reverse(...), AnnexTwo::PHASES)];
        $highest = max(max($samples), -min($samples));
        foreach ([0, 1] as $channel) {
            $row = array_fill(0, 11, 0.0);
            for ($i = $channel, $n = \count($samples); $i < $n; $i += 2) {
                $row[] = $samples[$i];
            }
            array_push($row, ...array_fill(0, 11, 0.0));
            for ($i = 11, $n = \count($row); $i < $n; ++$i) {
                foreach ($phases as $phase) {
                    $value = 0.0;
                    for ($tap = 0; $tap < 12; ++$tap) {
                        $value += $phase[$tap] * $row[$i - $tap];
                    }
                    $highest = max($highest, abs($value) / TruePeak::UNIT);
                }
            }
        }

        return $highest;
    }

    /** @param list<float> $samples */
    private static function levelAt(array $samples, int $frame): float
    {
        return 20.0 * log10($samples[2 * $frame + 1] / 0.25);
    }
}
