<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\InvalidSound;
use Wattage\Core\Loudness\LoudnessMeter;
use Wattage\Core\Loudness\MeasuredPart;
use Wattage\Core\Loudness\PartMeter;
use Wattage\Core\Signal\SampleLayout;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

final class PartMeterTest extends TestCase
{
    private const RATE = 48_000;

    /** Wherever the seam is, two parts measure as the whole: also where the highest peak lies across it. */
    #[DataProvider('seams')]
    public function testPartsMeasureAsTheWhole(int $seam, bool $stereo, int $peakAt): void
    {
        $bytes = self::sound($stereo, $peakAt);
        $layout = SampleLayout::int16($stereo ? 2 : 1);
        $whole = new LoudnessMeter($layout, self::RATE);
        $whole->push($bytes);
        $expected = $whole->finish();
        $size = $layout->bytesPerFrame();
        $first = new PartMeter($layout, self::RATE, false);
        $first->push(substr($bytes, 0, $seam * $size));
        $second = new PartMeter($layout, self::RATE, true);
        foreach (str_split(substr($bytes, ($seam - self::RATE) * $size), 70_001) as $piece) {
            $second->push($piece);
        }
        $sent = MeasuredPart::fromBytes($second->lastPart()->toBytes());
        self::assertNotNull($sent);
        $found = LoudnessMeter::joined([$first->part(), $sent], $layout->channels);
        foreach (['integrated', 'range', 'maxMomentary', 'maxShortTerm', 'rms'] as $what) {
            self::assertEqualsWithDelta($expected->{$what}, $found->{$what}, 1e-6, $what);
        }
        self::assertSame([$expected->truePeak, $expected->samplePeak, $expected->frames], [$found->truePeak, $found->samplePeak, $found->frames]);
    }

    /** @return iterable<string, array{int, bool, int}> */
    public static function seams(): iterable
    {
        $s = self::RATE;
        yield 'stereo' => [3 * $s, true, 2 * $s];
        yield 'mono' => [3 * $s, false, 4 * $s];
        foreach ([-7, -3, -1, 0, 2, 6, 11] as $off) {
            yield "a peak {$off} samples from the seam" => [3 * $s, true, 3 * $s + $off];
        }
        yield 'a peak at the very end' => [2 * $s, true, 6 * $s - 2];
        yield 'a peak in the run-up' => [3 * $s, true, (int) (2.3 * $s)];
    }

    public function testWhatAnotherProcessDidNotSendIsNoPart(): void
    {
        self::assertNull(MeasuredPart::fromBytes(''));
        self::assertNull(MeasuredPart::fromBytes(pack('e*', 1.0, 2.0)));
    }

    public function testPartsNeedTenthsThatAreWholeNumbersOfSamples(): void
    {
        self::assertSame([true, true, false], [PartMeter::suits(44_100), PartMeter::suits(48_000), PartMeter::suits(11_025)]);
        $this->expectException(InvalidSound::class);
        new PartMeter(SampleLayout::int16(2), 11_025, false);
    }

    private static function sound(bool $stereo, int $peakAt): string
    {
        $random = new Random(3);
        $sides = [];
        for ($c = 0; $c < ($stereo ? 2 : 1); ++$c) {
            $samples = [];
            for ($i = 0; $i < 6 * self::RATE + 1234; ++$i) {
                // Two samples of the same height between which the sound goes higher: a true peak.
                $samples[] = $i === $peakAt || $i === $peakAt + 1 ? 0.9 : 0.2 * (1 + sin($i / 30_000)) * sin($i * (0.03 + 0.01 * $c)) + 0.05 * $random->float(-1, 1);
            }
            $sides[] = $samples;
        }

        return Sound::pcm16(...$sides);
    }
}
