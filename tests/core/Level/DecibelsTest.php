<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Level;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Level\InvalidLevel;
use Wattage\Core\Level\LevelText;

final class DecibelsTest extends TestCase
{
    /** Source: definition of the decibel for amplitudes, dB = 20·log10(ratio). */
    #[DataProvider('percentages')]
    public function testAPercentageIsAnAmplitudeRatio(string $text, float $db): void
    {
        self::assertEqualsWithDelta($db, LevelText::parse($text)->db, 0.005);
    }

    /** @return iterable<string, array{string, float}> */
    public static function percentages(): iterable
    {
        yield '100 %' => ['100%', 0.0];
        yield '80 %' => ['80 %', -1.94];
        yield '70 %' => ['70%', -3.10];
        yield '50 %' => ['50%', -6.02];
        yield '200 %' => ['200%', 6.02];
        yield '400 %' => ['400%', 12.04];
    }

    /** [CP] common practice: 6 dB less is half. The exact figure is the definition's. */
    public function testSixDecibelsLessIsHalfTheAmplitude(): void
    {
        self::assertEqualsWithDelta(0.5012, Decibels::of(-6.0)->ratio(), 0.00005);
    }

    #[DataProvider('spellings')]
    public function testLevelsAreReadAsPeopleTypeThem(string $text, float $db): void
    {
        self::assertSame($db, LevelText::parse($text)->db);
    }

    /** @return iterable<array{string, float}> */
    public static function spellings(): iterable
    {
        yield ['-6', -6.0];
        yield ['−6 dB', -6.0];
        yield [' +3,5 db ', 3.5];
        yield ['.5', 0.5];
        yield ['-inf', -\INF];
        yield ['−∞ dB', -\INF];
        yield ['Silence', -\INF];
        yield ['0%', -\INF];
    }

    #[DataProvider('nonsense')]
    public function testWhatIsNoLevelIsRefusedWithTheRemedy(string $text): void
    {
        $this->expectException(InvalidLevel::class);
        LevelText::parse($text);
    }

    /** @return iterable<array{string}> */
    public static function nonsense(): iterable
    {
        yield [''];
        yield ['loud'];
        yield ['1e9'];
        yield ['-20%'];
        yield ['6 dBFS'];
        yield ['inf'];
        yield ["-6\n-6"];
        yield [str_repeat('9', 400)];
    }

    #[DataProvider('impossible')]
    public function testNeitherNanNorInfinityIsALevel(float $db): void
    {
        $this->expectException(InvalidLevel::class);
        Decibels::of($db);
    }

    /** @return iterable<array{float}> */
    public static function impossible(): iterable
    {
        yield [\NAN];
        yield [\INF];
    }

    public function testSilenceStaysSilenceWhateverIsAdded(): void
    {
        self::assertTrue(Decibels::silence()->plus(Decibels::of(24.0))->isSilence());
        self::assertSame(0.0, Decibels::silence()->ratio());
        self::assertSame('silence', Decibels::silence()->format());
    }

    public function testALabelNeverSaysMinusZero(): void
    {
        self::assertSame('0.0 dB', Decibels::of(-0.01)->format());
        self::assertSame('−6.0 dB', Decibels::of(-6.0)->format());
        self::assertSame('+1.5 dB', Decibels::of(1.5)->format());
    }

    public function testALevelAboveItsLimitIsRefusedByName(): void
    {
        $this->expectExceptionMessage('+24.1 dB is above the highest level here, +24.0 dB.');
        Decibels::of(24.1)->atMost(Decibels::MAX_CLIP);
    }
}
