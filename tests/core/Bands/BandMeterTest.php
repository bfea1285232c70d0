<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Bands;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Bands\SourceBands;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

final class BandMeterTest extends TestCase
{
    private const RATE = 48_000;

    /** A sine at the centre of a band is in that band, and nearly nowhere else: mean square of a sine is half its square. */
    #[DataProvider('bands')]
    public function testATonesPowerIsInItsBand(int $band, int $bits): void
    {
        $rows = self::rows(self::measured([Sound::sine(ThirdOctaves::centre($band), 0.25, 2 * self::RATE)], $bits), 1);
        $row = $rows[10];
        self::assertEqualsWithDelta(10.0 * log10(0.5 * 0.25 ** 2), self::db($row[$band]), 1.2);
        foreach ($row as $other => $byte) {
            if (abs($other - $band) > 2) {
                self::assertLessThan(self::db($row[$band]) - 24.0, self::db($byte), "band {$other}");
            }
        }
    }

    /** @return iterable<string, array{int, int}> */
    public static function bands(): iterable
    {
        for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
            yield ThirdOctaves::CENTRES[$band].' Hz' => [$band, 0 === $band % 2 ? 16 : 24];
        }
    }

    /** White noise has in each band what is due to its width: flat within 1 dB over ten seconds; each channel by itself. */
    public function testNoiseHasInEachBandWhatIsDueToItsWidth(): void
    {
        $random = new Random(5);
        $left = $right = [];
        for ($i = 0; $i < 10 * self::RATE; ++$i) {
            $left[] = $random->float(-0.3, 0.3);
            $right[] = $random->float(-0.03, 0.03);
        }
        foreach ([16, 24] as $bits) {
            $bytes = self::measured([$left, $right], $bits);
            foreach ([0.3, 0.03] as $channel => $amplitude) {
                $sums = array_fill(0, ThirdOctaves::COUNT, 0.0);
                $rows = self::rows(SourceBands::fromBytes($bytes, 2)->of($channel), 1);
                foreach ($rows as $row) {
                    foreach ($row as $band => $byte) {
                        $sums[$band] += BandLevel::powers()[$byte] / \count($rows);
                    }
                }
                foreach ($sums as $band => $sum) {
                    $due = $amplitude ** 2 / 3.0 * (ThirdOctaves::edge($band + 1) - ThirdOctaves::edge($band)) / (self::RATE / 2);
                    self::assertEqualsWithDelta(10.0 * log10($due), 10.0 * log10($sum), 1.0, "{$bits} bits, channel {$channel}, band {$band}");
                }
            }
        }
    }

    /** The quick loops over 16 and 24-bit stereo give the same bands as the plain one does for each channel alone. */
    public function testStereoIsMeasuredAsItsChannelsAre(): void
    {
        $random = new Random(9);
        $left = $right = [];
        for ($i = 0; $i < 3 * self::RATE; ++$i) {
            $left[] = 0.3 * sin(2 * \M_PI * 440 * $i / self::RATE) + $random->float(-0.01, 0.01);
            $right[] = $random->float(-0.2, 0.2);
        }
        foreach ([16, 24] as $bits) {
            $both = SourceBands::fromBytes(self::measured([$left, $right], $bits), 2);
            foreach ([$left, $right] as $channel => $samples) {
                $alone = self::measured([$samples], $bits);
                self::assertSame(\strlen($alone), \strlen($both->of($channel)));
                $off = array_map(static fn (int $a, int $b): int => abs($a - $b), Sound::integers('C*', $alone), Sound::integers('C*', $both->of($channel)));
                self::assertLessThanOrEqual(1, max($off), "half a decibel at most, {$bits} bits");
            }
        }
    }

    /** A recording at 8 kHz has nothing above 4 kHz: said by silence, not guessed from what a resampler lets through. */
    public function testBandsThatARecordingCannotHoldAreSilent(): void
    {
        self::assertSame(14, ThirdOctaves::within(8_000));
        self::assertSame(ThirdOctaves::COUNT, ThirdOctaves::within(44_100));
        $random = new Random(2);
        $noise = array_map(static fn (): float => $random->float(-0.5, 0.5), range(1, self::RATE));
        $row = self::rows(self::measured([$noise], 16, 8_000), 1)[5];
        self::assertSame([0, 0, 0, 0], \array_slice($row, 14));
        self::assertGreaterThan(0, $row[13]);
    }

    /** However the sound arrives, and whatever its length: a row for each 100 ms, a record for each 40 ms. */
    #[DataProvider('lengths')]
    public function testThereAreAsManyRowsAsTheSoundIsLong(int $frames, int $tenths, int $records): void
    {
        foreach ([1, 2] as $channels) {
            $format = PcmFormat::of($channels, 16);
            $bytes = Sound::noise(3, $frames * $format->bytesPerFrame());
            $results = [];
            foreach ([max(1, \strlen($bytes)), 4_801] as $piece) {
                [$rows, $out] = [Sound::memory(), Sound::memory()];
                $measurer = new SourceMeasurer($format, self::RATE, Sound::memory(), Sound::memory(), new BandMeter($format, self::RATE, self::RATE, $rows, $out));
                foreach (str_split($bytes, $piece) as $some) {
                    $measurer->push($some);
                }
                $measurer->finish();
                $results[] = [Sound::contents($rows), Sound::contents($out)];
            }
            self::assertSame($results[0], $results[1]);
            self::assertSame([$tenths * $channels * ThirdOctaves::COUNT, $records * BandMeter::RECORD], array_map(strlen(...), $results[0]));
        }
    }

    /** @return iterable<array{int, int, int}> */
    public static function lengths(): iterable
    {
        yield [0, 0, 0];
        yield [1, 1, 1];
        yield [960, 1, 1];
        yield [4_800, 1, 3];
        yield [9_600, 2, 5];
        yield [48_000, 10, 25];
        yield [48_001, 11, 26];
    }

    /** @param list<list<float>> $channels */
    private static function measured(array $channels, int $bits, int $recordedAt = self::RATE): string
    {
        $format = PcmFormat::of(\count($channels), $bits);
        $bytes = '';
        foreach (array_keys($channels[0]) as $i) {
            foreach ($channels as $samples) {
                $bytes .= 16 === $bits ? pack('v', (int) round($samples[$i] * 32767) & 0xFFFF) : substr(pack('V', (int) round($samples[$i] * 8388607) & 0xFFFFFF), 0, 3);
            }
        }
        $rows = Sound::memory();
        $measurer = new SourceMeasurer($format, self::RATE, Sound::memory(), Sound::memory(), new BandMeter($format, self::RATE, $recordedAt, $rows, Sound::memory()));
        $measurer->push($bytes);
        $measurer->finish();

        return Sound::contents($rows);
    }

    /** @return list<list<int>> */
    private static function rows(string $bytes, int $channels): array
    {
        return array_map(static fn (string $row): array => Sound::integers('C*', $row), str_split($bytes, $channels * ThirdOctaves::COUNT));
    }

    private static function db(int $byte): float
    {
        return BandLevel::LOWEST + BandLevel::STEP * $byte;
    }
}
