<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\InvalidSound;
use Wattage\Core\Loudness\Loudness;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Signal\SampleLayout;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Tones;

final class LoudnessMeterTest extends TestCase
{
    /**
     * EBU Tech 3341, cases 1 to 6; levels and durations recalled from memory [M].
     *
     * @param list<array{list<float>, float}> $parts levels of the channels in dBFS, seconds
     */
    #[DataProvider('integratedCases')]
    #[TestDox('EBU Tech 3341 [M], integrated: $_dataName')]
    public function testIntegratedLoudness(array $parts, float $expected): void
    {
        $loudness = self::measure(Tones::steps(1000, $parts), SampleLayout::float32(\count($parts[0][0])));
        self::assertEqualsWithDelta($expected, $loudness->integrated, 0.1);
    }

    /** @return iterable<string, array{list<array{list<float>, float}>, float}> */
    public static function integratedCases(): iterable
    {
        $stereo = static fn (float ...$steps): array => array_map(static fn (array $s): array => [[$s[0], $s[0]], $s[1]], array_chunk($steps, 2));
        yield '1, −23 dBFS' => [$stereo(-23.0, 20.0), -23.0];
        yield '2, −33 dBFS' => [$stereo(-33.0, 20.0), -33.0];
        yield '3, relative gate' => [$stereo(-36.0, 10.0, -23.0, 60.0, -36.0, 10.0), -23.0];
        yield '4, absolute gate' => [$stereo(-72.0, 10.0, -36.0, 10.0, -23.0, 60.0, -36.0, 10.0, -72.0, 10.0), -23.0];
        yield '5, steps within the gate' => [$stereo(-26.0, 20.0, -20.0, 20.1, -26.0, 20.0), -23.0];
        yield '6, five channels' => [[[[-28.0, -28.0, -24.0, -30.0, -30.0], 20.0]], -23.0];
    }

    #[TestDox('EBU Tech 3341 [M], case 1: momentary and short-term are −23.0, too')]
    public function testMomentaryAndShortTermOfASteadyTone(): void
    {
        $loudness = self::measure(Tones::steps(1000, [[[-23.0, -23.0], 20.0]]), SampleLayout::float32(2));
        self::assertEqualsWithDelta(-23.0, $loudness->maxMomentary, 0.1);
        self::assertEqualsWithDelta(-23.0, $loudness->maxShortTerm, 0.1);
    }

    /** @param float $settled seconds after which every reading must hold */
    #[DataProvider('alternating')]
    #[TestDox('EBU Tech 3341 [M], $_dataName: a window that holds both levels reads −23.0 all the time')]
    public function testWindowsOverAlternatingLevels(float $loud, float $soft, int $times, float $settled, bool $momentary): void
    {
        $parts = [];
        for ($i = 0; $i < $times; ++$i) {
            array_push($parts, [[-20.0, -20.0], $loud], [[-30.0, -30.0], $soft]);
        }
        $layout = SampleLayout::float32(2);
        $meter = new LoudnessMeter($layout, 48_000);
        $readings = [];
        foreach (str_split(Tones::steps(1000, $parts), 4800 * $layout->bytesPerFrame()) as $tenth => $bytes) {
            $meter->push($bytes);
            if (($tenth + 1) / 10 > $settled) {
                $readings[] = $momentary ? $meter->windows->momentary() : $meter->windows->shortTerm();
            }
        }
        self::assertNotEmpty($readings);
        foreach ($readings as $reading) {
            self::assertEqualsWithDelta(-23.0, $reading, 0.1);
        }
    }

    /** @return iterable<string, array{float, float, int, float, bool}> */
    public static function alternating(): iterable
    {
        yield 'case 9, short-term' => [1.34, 1.66, 5, 3.0, false];
        yield 'case 12, momentary' => [0.18, 0.22, 25, 1.0, true];
    }

    /**
     * EBU Tech 3342, cases 1 to 4; levels and durations recalled from memory [M].
     *
     * @param list<float> $levels dBFS, 20 s each
     */
    #[DataProvider('rangeCases')]
    #[TestDox('EBU Tech 3342 [M], loudness range: $_dataName')]
    public function testLoudnessRange(array $levels, float $expected): void
    {
        $parts = array_map(static fn (float $level): array => [[$level, $level], 20.0], $levels);
        self::assertEqualsWithDelta($expected, self::measure(Tones::steps(1000, $parts), SampleLayout::float32(2))->range, 1.0);
    }

    /** @return iterable<string, array{list<float>, float}> */
    public static function rangeCases(): iterable
    {
        yield '1' => [[-20.0, -30.0], 10.0];
        yield '2' => [[-20.0, -15.0], 5.0];
        yield '3' => [[-40.0, -20.0], 20.0];
        yield '4' => [[-50.0, -35.0, -20.0, -35.0, -50.0], 15.0];
    }

    #[TestDox('ITU-R BS.1770: 997 Hz at 0 dBFS in one channel reads −3.01 LKFS')]
    public function testCalibration(): void
    {
        self::assertEqualsWithDelta(-3.01, self::measure(Tones::steps(997, [[[0.0], 5.0]]), SampleLayout::float32(1))->integrated, 0.01);
    }

    #[DataProvider('rates')]
    #[TestDox('The weighting is the same at $rate samples a second')]
    public function testOtherRates(int $rate): void
    {
        $loudness = self::measure(Tones::steps(1000, [[[-23.0, -23.0], 8.0]], $rate), SampleLayout::float32(2), $rate);
        self::assertEqualsWithDelta(-23.0, $loudness->integrated, 0.1);
        self::assertEqualsWithDelta(-23.0, $loudness->maxShortTerm, 0.1);
    }

    /** @return iterable<array{int}> */
    public static function rates(): iterable
    {
        yield from [[8000], [11_025], [22_050], [44_100], [88_200], [96_000], [192_000]];
    }

    public function testRmsAndVu(): void
    {
        $loudness = self::measure(Tones::steps(1000, [[[-20.0, -20.0], 4.0]]), SampleLayout::float32(2));
        self::assertEqualsWithDelta(-23.01, $loudness->rms, 0.05, 'a sine’s RMS is 3.01 dB below its peak: definition');
        self::assertEqualsWithDelta(0.0, $loudness->vu(-20.0), 0.05, 'SMPTE RP 155: 0 VU at −20 dBFS');
        self::assertEqualsWithDelta(-2.0, $loudness->vu(-18.0), 0.05, 'EBU R 68: 0 VU at −18 dBFS');
    }

    /** The fast loop for 16-bit stereo and the plain one are one meter; and cutting changes nothing. */
    #[DataProvider('pieces')]
    public function testBothWaysAndAnyCutGiveTheSame(int $piece): void
    {
        $bytes = Sound::noise(5, 4 * 61_003);
        $floats = pack('g*', ...array_map(static fn (int $s): float => ($s >= 32768 ? $s - 65536 : $s) / 32768, Sound::integers('v*', $bytes)));
        $whole = self::measure($bytes, SampleLayout::int16(2));
        $cut = self::measure($bytes, SampleLayout::int16(2), 48_000, $piece);
        self::assertEquals($whole, $cut);
        foreach ((array) self::measure($floats, SampleLayout::float32(2), 48_000, $piece) as $what => $value) {
            self::assertEqualsWithDelta(((array) $whole)[$what], $value, 1e-6, $what);
        }
    }

    /** @return iterable<array{int}> */
    public static function pieces(): iterable
    {
        yield from [[1777], [19_200], [4], [65_537]];
    }

    /** @param float|null $truePeak dBTP */
    #[DataProvider('oddSounds')]
    public function testOddSoundsGiveANumberOrNothing(string $bytes, SampleLayout $layout, ?float $integrated, ?float $truePeak): void
    {
        $loudness = self::measure($bytes, $layout);
        null === $integrated ? self::assertNull($loudness->integrated) : self::assertEqualsWithDelta($integrated, $loudness->integrated, 0.2);
        null === $truePeak ? self::assertNull($loudness->truePeak) : self::assertEqualsWithDelta($truePeak, $loudness->truePeak, 0.2);
        foreach ((array) $loudness as $value) {
            self::assertTrue(null === $value || is_finite((float) $value));
        }
    }

    /** @return iterable<string, array{string, SampleLayout, ?float, ?float}> */
    public static function oddSounds(): iterable
    {
        $float = SampleLayout::float32(1);
        $tone = Tones::steps(1000, [[[-23.0], 2.0]]);
        $broken = substr($tone, 0, 48_000).pack('g*', \NAN, \INF, -\INF, 1e-42).substr($tone, 48_000);
        yield 'nothing' => ['', SampleLayout::int16(2), null, null];
        yield 'digital silence' => [str_repeat("\0", 400_000), SampleLayout::int16(2), null, null];
        yield 'one sample' => [pack('v2', 16_384, 0), SampleLayout::int16(2), null, -6.0];
        yield 'a broken frame at the end' => [pack('v2', 16_384, 0).'x', SampleLayout::int16(2), null, -6.0];
        yield '300 ms' => [Tones::steps(1000, [[[-23.0], 0.3]]), $float, null, -23.0];
        yield 'a tone on a steady offset, which the high-pass takes out' => [pack('g*', ...array_map(static fn (float $x): float => 0.3 + $x, Sound::sine(1000.0, 10 ** (-23 / 20), 480_000))), $float, -26.0, -8.6];
        yield 'clipped' => [pack('g*', ...array_map(static fn (float $x): float => max(-1.0, min(1.0, $x)), Sound::sine(1000.0, 4.0, 96_000))), $float, 0.0, 0.3]; // as ffmpeg (Debian) reads it
        yield 'above full scale' => [Tones::steps(1000, [[[6.0], 2.0]]), $float, 3.0, 6.0];
        yield 'not a number here and there' => [$broken, $float, -26.0, -23.0];
    }

    public function testWhatCannotBeMeasuredIsNamed(): void
    {
        $this->expectExceptionObject(InvalidSound::channels(7));
        new LoudnessMeter(SampleLayout::int16(7), 48_000);
    }

    public function testARateOutOfReachIsNamed(): void
    {
        $this->expectExceptionObject(InvalidSound::rate(4000));
        new LoudnessMeter(SampleLayout::int16(2), 4000);
    }

    /** A long sound needs no more memory than a short one. */
    public function testMemoryStaysTheSame(): void
    {
        $piece = Sound::noise(9, 4 * 48_000);
        $meter = new LoudnessMeter(SampleLayout::int16(2), 48_000);
        $meter->push($piece);
        $before = memory_get_usage();
        for ($i = 0; $i < 20; ++$i) {
            $meter->push($piece);
        }
        self::assertLessThan(200_000, memory_get_usage() - $before);
    }

    private static function measure(string $bytes, SampleLayout $layout, int $rate = 48_000, int $piece = 96_000): Loudness
    {
        $meter = new LoudnessMeter($layout, $rate);
        foreach ('' === $bytes ? [] : str_split($bytes, $piece) as $part) {
            $meter->push($part);
        }

        return $meter->finish();
    }
}
