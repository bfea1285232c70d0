<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Aim;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

final class ActivityTest extends TestCase
{
    private const RATE = 48_000;

    /** Speech made by the test, its times known: 95 % of the starts within 60 ms, none missed; clean, and 20 dB over noise. */
    #[DataProvider('backgrounds')]
    public function testSpeechIsFoundWhereItIs(?float $noiseDb): void
    {
        $times = [];
        $random = new Random(31);
        for ($at = 1.0; $at < 85.0; $at += $random->float(0.9, 3.0)) {
            $length = $random->float(0.5, 3.0);
            $times[] = [$at, $at + $length];
            $at += $length;
        }
        $found = Activity::of(self::spoken($times, 90.0, $noiseDb), self::RATE, Aim::USUAL_SENSITIVITY);
        $near = 0;
        foreach ($times as [$from, $to]) {
            $starts = array_map(static fn (Span $s): float => abs($s->from / self::RATE - $from), $found);
            $near += min($starts) <= 0.06 ? 1 : 0;
            self::assertNotEmpty(array_filter($found, static fn (Span $s): bool => $s->meets(Span::of((int) ($from * self::RATE), (int) ($to * self::RATE)))), "speech at {$from} s is missed");
        }
        self::assertGreaterThanOrEqual(0.95, $near / \count($times));
        self::assertLessThanOrEqual(\count($times), \count($found), 'nothing else is taken for speech');
        foreach ($found as $span) {
            $ends = array_map(static fn (array $t): float => abs($span->to / self::RATE - $t[1]), $times);
            self::assertLessThan(0.15, min($ends));
        }
    }

    /** @return iterable<string, array{?float}> */
    public static function backgrounds(): iterable
    {
        yield 'clean' => [null];
        yield '20 dB over noise' => [-20.0];
        yield '40 dB over noise' => [-40.0];
    }

    public function testNoSpeechInSilenceNorInSteadyNoiseNorInNothing(): void
    {
        self::assertSame([], Activity::of(self::spoken([], 20.0, null), self::RATE, Aim::USUAL_SENSITIVITY));
        self::assertSame([], Activity::of(self::spoken([], 20.0, -20.0), self::RATE, Aim::USUAL_SENSITIVITY));
        self::assertSame([], Activity::of(SourceBlocks::fromBytes('', 1), self::RATE, Aim::USUAL_SENSITIVITY));
    }

    public function testSpeechWithoutPausesIsSpeechAllAlong(): void
    {
        $found = Activity::of(self::spoken([[0.0, 30.0]], 30.0, null), self::RATE, Aim::USUAL_SENSITIVITY);
        self::assertGreaterThan(29.0, array_sum(array_map(static fn (Span $s): int => $s->length(), $found)) / self::RATE);
    }

    public function testWhatIsKeptOfARecordingFindsTheSameSpeech(): void
    {
        $blocks = self::spoken([[2.0, 4.0], [7.0, 9.5]], 12.0, -50.0);
        $kept = SpeechLevels::fromBytes(SpeechLevels::of($blocks)->toBytes());
        self::assertEquals(SpeechLevels::of($blocks), $kept);
        foreach ([4.0, 10.0, 20.0] as $sensitivity) {
            self::assertEquals(Activity::of($blocks, self::RATE, $sensitivity), Activity::in($kept, self::RATE, $sensitivity));
        }
        self::assertSame([], SpeechLevels::fromBytes(SpeechLevels::of(SourceBlocks::fromBytes('', 1))->toBytes())->levels(0, 10));
    }

    public function testLessSensitivityHearsQuieterSpeech(): void
    {
        $blocks = self::spoken([[2.0, 4.0, 1.0], [6.0, 8.0, 0.16]], 12.0, -40.0);
        $length = static fn (float $sensitivity): int => array_sum(array_map(static fn (Span $s): int => $s->length(), Activity::of($blocks, self::RATE, $sensitivity)));
        self::assertEqualsWithDelta(2.0, $length(30.0) / self::RATE, 0.2, 'the quiet sentence is left out');
        self::assertEqualsWithDelta(4.0, $length(10.0) / self::RATE, 0.3);
    }

    /** @param list<array{0: float, 1: float, 2?: float}> $times from and to in seconds, and how loud */
    private static function spoken(array $times, float $seconds, ?float $noiseDb): SourceBlocks
    {
        $random = new Random(8);
        $samples = [];
        $noise = null === $noiseDb ? 0.0 : 0.1 * 10 ** ($noiseDb / 20);
        $frames = (int) ($seconds * self::RATE);
        $syllables = array_fill(0, $frames, 0.0);
        foreach ($times as $time) {
            [$from, $to] = $time;
            for ($i = (int) ($from * self::RATE), $end = min($frames, (int) ($to * self::RATE)); $i < $end; ++$i) {
                // Syllables: four a second, with a short dip between them.
                $phase = fmod($i / self::RATE - $from, 0.25) / 0.25;
                $syllables[$i] = ($time[2] ?? 1.0) * 0.1 * (0.25 + 0.75 * sin(\M_PI * min(1.0, $phase + 0.1)));
            }
        }
        $written = Sound::memory();
        $measurer = new SourceMeasurer(PcmFormat::of(1, 16), self::RATE, $written, Sound::memory());
        foreach (array_chunk($syllables, self::RATE) as $second => $part) {
            $values = [];
            foreach ($part as $i => $gain) {
                $values[] = $gain * sin(2 * \M_PI * 220 * ($second + $i / self::RATE)) + $gain * 0.5 * sin(2 * \M_PI * 1400 * $i / self::RATE) + $noise * $random->float(-1.7, 1.7) / 2;
            }
            $measurer->push(Sound::pcm16($values));
        }
        $measurer->finish();

        return SourceBlocks::fromBytes(Sound::contents($written), 1);
    }
}
