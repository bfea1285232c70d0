<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Clarity;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Clarity\SpeechIndex;

/** ANSI S3.5-1997, third-octave procedure. The tables and worked values are recalled from memory [M]; what they must add up to is not. */
final class SpeechIndexTest extends TestCase
{
    /** The importances are parts of a whole; the spectrum of normal effort has the overall level that the standard gives it, 62.35 dB SPL. */
    public function testTheTablesAddUpToWhatTheStandardSays(): void
    {
        self::assertEqualsWithDelta(1.0, array_sum(SpeechIndex::IMPORTANCE), 1e-9);
        $power = 0.0;
        foreach (SpeechIndex::NORMAL as $band => $level) {
            $power += 10.0 ** ($level / 10.0) * (ThirdOctaves::edge($band + 1) - ThirdOctaves::edge($band));
        }
        self::assertEqualsWithDelta(SpeechIndex::NORMAL_TOGETHER, 10.0 * log10($power), 0.05);
    }

    /** Normal speech in quiet is understood: 0.996 [M]. Noise 30 dB above it leaves nothing, and so does speech 60 dB below hearing. */
    public function testItReachesFromNothingToAll(): void
    {
        $index = new SpeechIndex();
        $quiet = self::powers(self::level(SpeechIndex::SILENCE));
        self::assertEqualsWithDelta(0.996, $index->of(SpeechIndex::NORMAL, $quiet), 0.001);
        self::assertSame(0.0, $index->of(SpeechIndex::NORMAL, self::powers(self::moved(30.0))));
        self::assertSame(0.0, $index->of(self::moved(-60.0), $quiet));
        self::assertSame(0.0, $index->of(self::level(SpeechIndex::SILENCE), $quiet));
    }

    /** Noise with the spectrum of speech: each decibel less is a thirtieth more, (SNR + 15) / 30, but for what spreads upwards, which only takes away. */
    public function testItFollowsTheRatioOfSpeechToNoise(): void
    {
        $index = new SpeechIndex();
        $before = -1.0;
        for ($ratio = -20; $ratio <= 30; ++$ratio) {
            $value = $index->of(SpeechIndex::NORMAL, self::powers(self::moved(-(float) $ratio)));
            $plain = max(0.0, min(1.0, ($ratio + 15) / 30));
            self::assertLessThanOrEqual($plain + 1e-9, $value);
            self::assertGreaterThan($plain - 0.05, $value, "{$ratio} dB");
            self::assertGreaterThanOrEqual($before, $value);
            $before = $value;
        }
    }

    /** Too loud is not clear either: above normal effort by 10 dB and more, level distortion takes 1/160 for each decibel. */
    public function testSpeechThatIsTooLoudIsDistorted(): void
    {
        $index = new SpeechIndex();
        $loud = $index->of(self::moved(60.0), self::powers(self::level(SpeechIndex::SILENCE)));
        self::assertEqualsWithDelta(1.0 - 50.0 / 160.0, $loud, 0.02);
    }

    /** A narrow noise covers its own band most, and what lies above it more than what lies beneath. */
    #[DataProvider('maskers')]
    public function testNoiseMasksItsBandAndUpwards(int $band): void
    {
        $index = new SpeechIndex();
        $noise = self::level(SpeechIndex::SILENCE);
        $noise[$band] = SpeechIndex::NORMAL[$band] + 20.0;
        $alone = $index->parts(SpeechIndex::NORMAL, self::powers(self::level(SpeechIndex::SILENCE)));
        $lost = array_map(static fn (float $without, float $with): float => $without - $with, $alone, $index->parts(SpeechIndex::NORMAL, self::powers($noise)));
        self::assertEqualsWithDelta($alone[$band], $lost[$band], 1e-9, 'nothing is left of its own band');
        self::assertEqualsWithDelta(0.0, array_sum(\array_slice($lost, 0, $band)), 1e-9, 'nor is anything lost below it');
        $part = array_map(static fn (float $without, float $by): float => $by / $without, \array_slice($alone, $band), \array_slice($lost, $band));
        $falling = $part;
        rsort($falling);
        self::assertSame($falling, $part, 'further up, less and less of each band');
        self::assertGreaterThan(0.0, $part[1]);
        self::assertSame(0.0, round($part[\count($part) - 1], 9));
    }

    /** @return iterable<array{int}> */
    public static function maskers(): iterable
    {
        yield '315 Hz' => [3];
        yield '1 kHz' => [8];
        yield '2.5 kHz' => [12];
    }

    public function testAHearingLossTakesWhatItCovers(): void
    {
        $quiet = self::powers(self::level(SpeechIndex::SILENCE));
        $loss = [...array_fill(0, 12, 0.0), ...array_fill(0, 6, 60.0)];
        self::assertEqualsWithDelta((new SpeechIndex())->of(SpeechIndex::NORMAL, $quiet) - array_sum(\array_slice(SpeechIndex::IMPORTANCE, 12)), (new SpeechIndex($loss))->of(SpeechIndex::NORMAL, $quiet), 0.005);
    }

    /** @return array<int, float> */
    private static function level(float $db): array
    {
        return array_fill(0, ThirdOctaves::COUNT, $db);
    }

    /**
     * @param array<int, float> $levels dB
     *
     * @return array<int, float>
     */
    private static function powers(array $levels): array
    {
        return array_map(static fn (float $level): float => 10.0 ** ($level / 10.0), $levels);
    }

    /** @return array<int, float> normal speech, louder by so much */
    private static function moved(float $db): array
    {
        return array_map(static fn (float $level): float => $level + $db, SpeechIndex::NORMAL);
    }
}
