<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\KWeighting;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Loudness\PlainBins;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\StereoBins16;
use Wattage\Core\Loudness\StereoBins24;
use Wattage\Core\Loudness\Totals;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Tests\support\Sound;

final class SourceMeasurerTest extends TestCase
{
    #[TestDox('ITU-R BS.1770: a 997 Hz sine at 0 dBFS peak on one channel reads −3.01 LKFS')]
    public function testTheCalibrationOfTheRecommendationHolds(): void
    {
        [$blocks] = self::measure(Sound::pcm16(Sound::sine(997, 1.0, 96_000)), 1);
        $energies = array_column(array_chunk(Sound::floats($blocks), 2), 0);
        $settled = \array_slice($energies, 25, 50); // one second, after the filter has settled
        self::assertEqualsWithDelta(-3.01, -0.691 + 10 * log10(array_sum($settled) / \count($settled)), 0.01);
    }

    /** The prototype parameters are recalled from memory [M]; the tables they must give are ITU-R BS.1770's. */
    public function testThePrototypesGiveThePublishedCoefficientsAt48Kilohertz(): void
    {
        $made = KWeighting::transformed(48_000);
        $published = KWeighting::atRate(48_000);
        foreach ([...$published->shelf, ...$published->highPass] as $i => $value) {
            self::assertEqualsWithDelta($value, [...$made->shelf, ...$made->highPass][$i], 2e-6);
        }
        self::assertSame([1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241, 0.73248077421585], $published->shelf);
        self::assertSame([-1.99004745483398, 0.99007225036621], $published->highPass);
    }

    /** ffmpeg (Debian), ebur128: momentary loudness of a steady sound, 0.1 LU. */
    public function testNoiseReadsAsFfmpegReadsIt(): void
    {
        $bytes = Sound::pcm16(...array_map(static fn (int $c): array => array_map(static fn (int $b): float => ($b - 127.5) / 400, Sound::integers('C*', Sound::noise($c, 144_000))), [1, 2]));
        [$blocks] = self::measure($bytes, 2);
        $rows = array_chunk(Sound::floats($blocks), 4);
        $energy = array_sum(array_map(static fn (array $r): float => $r[0] + $r[2], \array_slice($rows, 50, 100))) / 100;
        $file = Sound::file(\Wattage\Core\Signal\WavHeader::of(2, 16, false, 48_000, 144_000).$bytes, '.wav');
        [$theirs] = \array_slice(Sound::metadata($file, 'ebur128=metadata=1', ['lavfi.r128.S']), -1);
        self::assertEqualsWithDelta($theirs['lavfi.r128.S'], -0.691 + 10 * log10($energy), 0.15);
    }

    #[DataProvider('cuts')]
    public function testAnyWayOfCuttingTheStreamGivesTheSame(int $channels, int $bits, int $piece): void
    {
        $bytes = Sound::noise(3, 10_000 * $channels * intdiv($bits, 8));
        self::assertEquals(self::measure($bytes, $channels, $bits), self::measure($bytes, $channels, $bits, $piece));
    }

    /** @return iterable<array{int, int, int}> */
    public static function cuts(): iterable
    {
        yield [2, 16, 1000];
        yield [2, 24, 7];
        yield [1, 16, 16_384];
        yield [1, 24, 12_345];
    }

    public function testPeaksAndExtremesAreThoseOfTheSamples(): void
    {
        $samples = array_fill(0, 2000, 0.0);
        $samples[250] = 0.5;
        $samples[1500] = -0.75;
        [$blocks, $waveform, $totals] = self::measure(Sound::pcm16($samples), 1);
        self::assertSame(2000, $totals->frames);
        self::assertEqualsWithDelta(0.75, $totals->peak, 1e-4);
        $peaks = array_column(array_chunk(Sound::floats($blocks), 2), 1);
        self::assertEqualsWithDelta([0.5, 0.75, 0.0], $peaks, 1e-4);
        $bins = array_chunk(array_values((array) unpack('s*', $waveform)), 2);
        self::assertCount(9, $bins);
        self::assertEqualsWithDelta([0, 16_384], $bins[1], 1.0);
        self::assertEqualsWithDelta([-24_575, 0], $bins[6], 1.0);
    }

    public function testTheOutlineHoldsTheHighestOfWhatEachPointStandsFor(): void
    {
        $samples = array_fill(0, 240 * 64, 0.0);
        $samples[240 * 20] = -0.5;
        [, $waveform] = self::measure(Sound::pcm16($samples), 1);
        $levels = array_map(static fn (): mixed => Sound::memory(), Overview::BINS_PER_POINT);
        Overview::write(Sound::memory($waveform), 1, $levels);
        $points = array_map(static fn (mixed $l): array => array_values((array) unpack('v*', Sound::contents($l))), $levels);
        self::assertSame([64, 16, 4, 1, 1], array_map(\count(...), $points));
        self::assertEqualsWithDelta(16_384, $points[0][20], 1.0);
        self::assertSame(0, $points[0][21]);
        self::assertEqualsWithDelta([0, 16_384, 0, 0], $points[2], 1.0);
        self::assertEqualsWithDelta([16_384], $points[4], 1.0);
    }

    public function testDigitalSilenceAfterSoundHasNoEnergyLeftInTheEnd(): void
    {
        [$blocks] = self::measure(Sound::pcm16([...Sound::sine(997, 1.0, 9600), ...array_fill(0, 480_000, 0.0)]), 1);
        $values = Sound::floats($blocks);
        self::assertSame(0.0, $values[\count($values) - 2]);
    }

    /** The quick ways of stereo against the plain one: sound, silence, sound again, and what the filters hold when a shorter block follows. */
    #[DataProvider('rates')]
    public function testTheQuickWaysFindWhatThePlainOneFinds(int $bits, int $rate): void
    {
        $format = PcmFormat::of(2, $bits);
        $filter = KWeighting::atRate($rate);
        $bin = intdiv($rate, 200);
        $quick = 16 === $bits ? new StereoBins16($filter, $bin) : new StereoBins24($filter, $bin);
        self::assertTrue($quick::suits(4 * $bin, $bin));
        $plain = new PlainBins($format, $filter, $bin);
        $bytes = 4 * $bin * $format->bytesPerFrame();
        $sound = Sound::noise($bits, 10 * $bytes).str_repeat("\0", 5 * $bytes).Sound::noise($rate, 5 * $bytes);
        foreach (str_split($sound, $bytes) as $block) {
            self::assertAlike($plain->block($block), $quick->block($block));
        }
        $last = Sound::noise(9, 100 * $format->bytesPerFrame());
        self::assertAlike($plain->block($last), $quick->rest($format)->block($last));
    }

    /** @return iterable<array{int, int}> */
    public static function rates(): iterable
    {
        yield [16, 48_000];
        yield [24, 48_000];
        yield [16, 96_000];
        yield [24, 96_000];
    }

    /**
     * @param array{list<float>, list<int>} $expected
     * @param array{list<float>, list<int>} $found
     */
    private static function assertAlike(array $expected, array $found): void
    {
        self::assertSame($expected[1], $found[1]);
        foreach ($expected[0] as $c => $energy) {
            self::assertEqualsWithDelta($energy, $found[0][$c], 1e-9 * (1.0 + $energy));
        }
    }

    /** @return array{string, string, Totals} */
    private static function measure(string $bytes, int $channels, int $bits = 16, int $piece = \PHP_INT_MAX): array
    {
        [$blocks, $waveform] = [Sound::memory(), Sound::memory()];
        $measurer = new SourceMeasurer(PcmFormat::of($channels, $bits), 48_000, $blocks, $waveform);
        foreach (\PHP_INT_MAX === $piece ? [$bytes] : str_split($bytes, $piece) as $part) {
            $measurer->push($part);
        }
        $totals = $measurer->finish();

        return [Sound::contents($blocks), Sound::contents($waveform), $totals];
    }
}
