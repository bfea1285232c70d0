<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Speech\SpeechChance;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Voice;

/** Speech with known times among other sound, all made by the test; tools/speech-model/check.php does the same over 40 minutes, with people’s voices as Debian’s synthesisers have them. */
final class SpeechFoundTest extends TestCase
{
    private const TIMES = [[1.0, 3.2], [4.4, 6.0], [8.5, 11.0], [13.0, 13.5], [15.0, 19.0]];
    private const PAUSES = [[0.0, 0.9], [3.6, 4.2], [6.4, 8.3], [11.5, 12.8], [13.9, 14.8], [19.4, 22.0]];
    private const SECONDS = 22.0;

    /** Less than tools/speech-model/check.php finds of people’s voices (99 % at 5 dB, 90 % at 0 dB), since this one has only vowels and hisses. */
    #[DataProvider('noises')]
    public function testSpeechIsFoundInNoise(string $kind): void
    {
        $noise = new Noise(new Random(\strlen($kind)));
        foreach ([[20.0, 0.97, 0.1], [5.0, 0.93, 0.12], [0.0, 0.7, 0.15]] as [$ratio, $least, $most]) {
            $heard = Heard::in(self::sum(self::said(), $noise->steady($kind, (int) (self::SECONDS * Heard::RATE), 0.05 * 10.0 ** (-$ratio / 20.0))));
            self::assertGreaterThanOrEqual($least, $heard->part(self::TIMES), "{$ratio} dB over {$kind}");
            self::assertLessThanOrEqual($most, $heard->part(self::PAUSES), "{$ratio} dB over {$kind}");
        }
    }

    /** @return iterable<string, array{string}> */
    public static function noises(): iterable
    {
        foreach (['white', 'pink', 'hum', 'rain', 'wind', 'traffic'] as $kind) {
            yield $kind => [$kind];
        }
    }

    /** What stands out of its background and is no speech. By its level alone all of it was. */
    #[DataProvider('events')]
    public function testOtherSoundIsNotTakenForSpeech(string $kind): void
    {
        $random = new Random(7);
        $noise = new Noise($random);
        $sound = $noise->steady('pink', 20 * Heard::RATE, 0.001);
        for ($at = 1; $at < 17; $at += 3) {
            foreach ($noise->event($kind, $random->float(0.1, 0.7)) as $i => $x) {
                $sound[$at * Heard::RATE + $i] += $x;
            }
        }
        // A creak, a buzz that bends, is nearest to a voice.
        self::assertLessThanOrEqual('creak' === $kind ? 0.15 : 0.06, Heard::in(\array_slice($sound, 0, 20 * Heard::RATE))->part([[0.0, 20.0]]));
    }

    /** @return iterable<string, array{string}> */
    public static function events(): iterable
    {
        foreach (Noise::EVENTS as $kind) {
            yield $kind => [$kind];
        }
    }

    public function testMusicAloneIsNoSpeechAndSpeechOverItIs(): void
    {
        $music = (new Noise(new Random(3)))->music((int) (self::SECONDS * Heard::RATE), 0.05);
        self::assertLessThanOrEqual(0.05, Heard::in($music)->part([[0.0, self::SECONDS]]));
        $heard = Heard::in(self::sum(Voice::saying(self::TIMES, self::SECONDS, 0.09, 5), $music));
        self::assertGreaterThanOrEqual(0.9, $heard->part(self::TIMES));
        self::assertLessThanOrEqual(0.15, $heard->part(self::PAUSES));
        // As loud as the music, in the same recording.
        $heard = Heard::in(self::sum(self::said(), $music));
        self::assertGreaterThanOrEqual(0.8, $heard->part(self::TIMES));
        self::assertLessThanOrEqual(0.15, $heard->part(self::PAUSES));
    }

    /** A slam in a pause and one over a word: the word stays, the other is none. */
    public function testASlamBetweenSentencesIsNone(): void
    {
        $sound = Voice::saying(self::TIMES, self::SECONDS, 0.05, 2);
        foreach ([7.0, 12.0, 16.5] as $at) {
            foreach ((new Noise(new Random(4)))->event('slam', 0.8) as $i => $x) {
                $sound[(int) ($at * Heard::RATE) + $i] += $x;
            }
        }
        $heard = Heard::in($sound);
        self::assertGreaterThanOrEqual(0.95, $heard->part(self::TIMES));
        self::assertLessThanOrEqual(0.05, $heard->part(self::PAUSES));
    }

    /** A clean recording: 95 % of the starts within 80 ms; here all, and the ends within 150. */
    public function testInACleanRecordingItBeginsAndEndsWhereItDoes(): void
    {
        $found = Heard::in(self::sum(Voice::saying(self::TIMES, self::SECONDS, 0.05, 6), (new Noise(new Random(2)))->steady('pink', (int) (self::SECONDS * Heard::RATE), 0.0003)))->speech();
        self::assertCount(\count(self::TIMES), $found);
        foreach (self::TIMES as $i => [$from, $to]) {
            self::assertEqualsWithDelta($from, $found[$i]->from / Heard::RATE, 0.08);
            self::assertEqualsWithDelta($to, $found[$i]->to / Heard::RATE, 0.15);
        }
    }

    /** Less sensitivity takes less for speech, never more. */
    public function testMoreMustSpeakForItWhereItIsAskedFor(): void
    {
        $heard = Heard::in(self::sum(self::said(), (new Noise(new Random(9)))->steady('wind', (int) (self::SECONDS * Heard::RATE), 0.07)));
        $lengths = array_map(static fn (float $sensitivity): int => array_sum(array_map(static fn ($span): int => $span->length(), $heard->speech($sensitivity))), [3.0, 10.0, 20.0, 30.0]);
        $falling = $lengths;
        rsort($falling);
        self::assertSame($falling, $lengths);
        self::assertGreaterThan($lengths[3], $lengths[0]);
    }

    /** However the records come, in pieces of any size, of an hour or of nothing. */
    public function testChancesAreTheSameHoweverTheRecordsCome(): void
    {
        $records = '';
        $random = new Random(1);
        for ($i = 0; $i < 4000 * BandMeter::RECORD; ++$i) {
            $records .= \chr($random->int(60, 180));
        }
        $whole = SpeechChance::ofRecords([$records])->bytes;
        self::assertSame(4000, \strlen($whole));
        foreach ([1, 777, 50_000] as $size) {
            self::assertSame($whole, SpeechChance::ofRecords(str_split($records, 1 === $size ? 19 : $size))->bytes);
        }
        self::assertSame('', SpeechChance::ofRecords([])->bytes);
        self::assertSame(1, \strlen(SpeechChance::ofRecords([substr($records, 0, BandMeter::RECORD)])->bytes));
    }

    /** @return list<float> made once */
    private static function said(): array
    {
        /** @var ?list<float> $said */
        static $said = null;

        return $said ??= Voice::saying(self::TIMES, self::SECONDS, 0.05, 3);
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     *
     * @return list<float>
     */
    private static function sum(array $a, array $b): array
    {
        return array_map(static fn (float $x, float $y): float => $x + $y, $a, $b);
    }
}
