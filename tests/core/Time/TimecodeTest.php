<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\InvalidTime;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;

final class TimecodeTest extends TestCase
{
    private const RATE = 48_000;

    #[TestDox('SMPTE ST 12-1 drop-frame [M, recalled from memory]: frame $frame at 30000/1001 is $timecode')]
    #[DataProvider('dropFrames')]
    public function testDropFrameCountingSkipsTwoNumbersAMinuteExceptEveryTenth(int $frame, string $timecode): void
    {
        $sample = FrameRate::F2997Drop->sampleOf($frame, self::RATE);
        self::assertSame($timecode, Timecode::format($sample, self::RATE, FrameRate::F2997Drop));
        self::assertSame($sample, Timecode::parse($timecode, self::RATE, FrameRate::F2997Drop));
    }

    /** @return iterable<array{int, string}> */
    public static function dropFrames(): iterable
    {
        yield [0, '00:00:00;00'];
        yield [1799, '00:00:59;29'];
        yield [1800, '00:01:00;02'];
        yield [17_981, '00:09:59;29'];
        yield [17_982, '00:10:00;00'];
        yield [107_892, '01:00:00;00'];
    }

    public function testADroppedNumberDoesNotExist(): void
    {
        $this->expectException(InvalidTime::class);
        Timecode::parse('00:01:00;01', self::RATE, FrameRate::F2997Drop);
    }

    #[DataProvider('rates')]
    public function testEveryFrameIsReadBackAsItself(FrameRate $rate): void
    {
        for ($frame = 0; $frame < 40_000; $frame += 37) {
            $sample = $rate->sampleOf($frame, self::RATE);
            self::assertSame($frame, $rate->frameAt($sample, self::RATE));
            self::assertSame($sample, Timecode::parse(Timecode::format($sample, self::RATE, $rate), self::RATE, $rate));
            if ($sample > 0) {
                self::assertSame($frame - 1, $rate->frameAt($sample - 1, self::RATE), 'the sample before belongs to the frame before');
            }
        }
    }

    /** @return iterable<string, array{FrameRate}> */
    public static function rates(): iterable
    {
        foreach (FrameRate::cases() as $rate) {
            yield $rate->value => [$rate];
        }
    }

    public function testTimesAreReadAsPeopleTypeThem(): void
    {
        $read = static fn (string $text): int => Timecode::parse($text, self::RATE, FrameRate::F25);
        self::assertSame(72 * self::RATE + 9 * 1920, $read('00:01:12:09'));
        self::assertSame((int) (72.36 * self::RATE), $read('1:12.36'));
        self::assertSame((int) (58.2 * self::RATE), $read('58,2 s'));
        self::assertSame(3600 * self::RATE, $read('1:00:00.000'));
        self::assertSame('1:12.360', Timecode::clock((int) (72.36 * self::RATE), self::RATE));
        self::assertSame('1:00:00.000', Timecode::clock(3600 * self::RATE, self::RATE));
    }

    #[DataProvider('nonsense')]
    public function testWhatIsNoTimeIsRefused(string $text): void
    {
        $this->expectException(InvalidTime::class);
        Timecode::parse($text, self::RATE, FrameRate::F25);
    }

    /** @return iterable<array{string}> */
    public static function nonsense(): iterable
    {
        yield [''];
        yield ['later'];
        yield ['-1:00'];
        yield ['00:00:00:25'];
        yield ['00:61:00:00'];
        yield ['1:2:3:4:5'];
    }

    public function testASpanIsHalfOpenAndNeverReversed(): void
    {
        self::assertFalse(Span::of(0, 10)->meets(Span::of(10, 20)));
        self::assertTrue(Span::of(0, 11)->meets(Span::of(10, 20)));
        self::assertNull(Span::of(0, 10)->within(Span::of(10, 20)));
        $this->expectException(InvalidTime::class);
        Span::of(10, 10);
    }
}
