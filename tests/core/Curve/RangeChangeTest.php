<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Curve;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RangeChange;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Tests\support\Random;

/** The dip: what levels.md promises of it, on given and on random cases. */
final class RangeChangeTest extends TestCase
{
    private const LENGTH = 40_000;

    public function testADipInAFlatCurveMakesItsFourKeyframesItself(): void
    {
        $curve = (new RangeChange(-11.0, 1000))->of(Curve::flat(), Span::of(5000, 9000), Span::of(0, self::LENGTH));
        self::assertSame([[4000, 0.0], [5000, -11.0], [9000, -11.0], [10_000, 0.0]], array_map(static fn (Keyframe $k): array => [$k->position, $k->level->db], $curve->keyframes));
        self::assertEqualsWithDelta(-5.5, $curve->levelAt(4500)->db, 1e-9);
    }

    public function testWithRampsInsideTheWholeDifferenceIsReachedWithinTheRange(): void
    {
        $curve = (new RangeChange(-11.0, 1000, inside: true))->of(Curve::flat(), Span::of(5000, 9000), Span::of(0, self::LENGTH));
        self::assertSame([5000, 6000, 8000, 9000], array_map(static fn (Keyframe $k): int => $k->position, $curve->keyframes));
        self::assertSame(0.0, $curve->levelAt(4999)->db);
    }

    public function testOneDecibelDeeperAddsNoKeyframes(): void
    {
        $range = Span::of(5000, 9000);
        $bounds = Span::of(0, self::LENGTH);
        $once = (new RangeChange(-11.0, 1000))->of(Curve::flat(), $range, $bounds);
        $deeper = (new RangeChange(-1.0, 1000))->of($once, $range, $bounds);
        self::assertCount(4, $deeper->keyframes);
        self::assertSame(-12.0, $deeper->levelAt(7000)->db);
        self::assertEqualsWithDelta(-6.0, $deeper->levelAt(4500)->db, 1e-9, 'the ramps add up, too');
    }

    #[DataProvider('cases')]
    public function testOutsideRangeAndRampsNothingChangesAtAll(int $seed): void
    {
        [$curve, $range, $bounds, $by, $ramp, $inside] = self::randomCase($seed);
        $after = (new RangeChange($by, $ramp, $inside))->of($curve, $range, $bounds);
        $reach = $inside ? 0 : $ramp;
        for ($position = 0; $position < self::LENGTH; $position += 7) {
            if ($position < $range->from - $reach || $position >= $range->to + $reach || $position < $bounds->from || $position >= $bounds->to) {
                self::assertEqualsWithDelta($curve->levelAt($position)->ratio(), $after->levelAt($position)->ratio(), 1e-11, "at {$position}");
            }
        }
    }

    #[DataProvider('cases')]
    public function testInsideTheRangeTheOldCurveIsRaisedByTheDifference(int $seed): void
    {
        [$curve, $range, $bounds, $by, $ramp] = self::randomCase($seed);
        $after = (new RangeChange($by, $ramp))->of($curve, $range, $bounds);
        $heard = $range->within($bounds);
        self::assertNotNull($heard);
        for ($position = $heard->from; $position < $heard->to; $position += 7) {
            self::assertEqualsWithDelta($curve->levelAt($position)->ratio() * 10 ** ($by / 20), $after->levelAt($position)->ratio(), 1e-10, "at {$position}");
        }
        foreach ($curve->keyframes as $keyframe) {
            if ($keyframe->position >= $heard->from && $keyframe->position < $heard->to) {
                self::assertTrue($after->hasKeyframeAt($keyframe->position), 'existing keyframes are kept');
            }
        }
    }

    #[DataProvider('cases')]
    public function testTheOppositeChangeRestoresTheCurveToTheEar(int $seed): void
    {
        [$curve, $range, $bounds, $by, $ramp, $inside] = self::randomCase($seed);
        $there = (new RangeChange($by, $ramp, $inside))->of($curve, $range, $bounds);
        $back = (new RangeChange(-$by, $ramp, $inside))->of($there, $range, $bounds);
        for ($position = 0; $position < self::LENGTH; $position += 7) {
            $expected = $curve->levelAt($position);
            $actual = $back->levelAt($position);
            if ($expected->isSilence() || $actual->isSilence()) {
                self::assertEqualsWithDelta($expected->ratio(), $actual->ratio(), 1e-9, "at {$position}");
            } else {
                self::assertEqualsWithDelta($expected->db, $actual->db, 0.01, "at {$position}");
            }
        }
    }

    /** @return iterable<string, array{int}> */
    public static function cases(): iterable
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            yield "seed {$seed}" => [$seed];
        }
    }

    public function testARampIsShortenedWhereTheClipEnds(): void
    {
        $curve = (new RangeChange(-11.0, 1000))->of(Curve::flat(), Span::of(2400, 9000), Span::of(2000, 9500));
        self::assertSame([2000, 2400, 9000, 9500], array_map(static fn (Keyframe $k): int => $k->position, $curve->keyframes));
    }

    public function testAtTheEdgeOfAClipTheUnheardSoundKeepsItsLevel(): void
    {
        $curve = (new RangeChange(-11.0, 1000))->of(Curve::flat(), Span::of(0, 20_000), Span::of(2000, 9500));
        self::assertSame(0.0, $curve->levelAt(1999)->db);
        self::assertSame(-11.0, $curve->levelAt(2000)->db);
        self::assertSame(-11.0, $curve->levelAt(9499)->db);
        self::assertSame(0.0, $curve->levelAt(9500)->db);
    }

    public function testADipOverASlopeKeepsTheSlopeAndAddsTheDip(): void
    {
        $slope = Curve::of([new Keyframe(0, Decibels::of(0.0), Ramp::line()), new Keyframe(self::LENGTH, Decibels::of(-40.0), Ramp::line())]);
        $after = (new RangeChange(-10.0, 4000))->of($slope, Span::of(10_000, 20_000), Span::of(0, self::LENGTH));
        self::assertEqualsWithDelta(-8.0 - 5.0, $after->levelAt(8000)->db, 1e-9, 'half way down the ramp');
        self::assertEqualsWithDelta(-15.0 - 10.0, $after->levelAt(15_000)->db, 1e-9);
    }

    public function testALiftAboveTheHighestLevelIsRefusedAndSaysSo(): void
    {
        $this->expectExceptionMessage('the highest is +24 dB');
        (new RangeChange(25.0, 1000))->of(Curve::flat(), Span::of(5000, 9000), Span::of(0, self::LENGTH));
    }

    public function testARangeBesideTheClipIsRefused(): void
    {
        $this->expectException(InvalidCurve::class);
        (new RangeChange(-3.0, 1000))->of(Curve::flat(), Span::of(5000, 9000), Span::of(10_000, 20_000));
    }

    public function testNoDifferenceGivesTheVerySameCurve(): void
    {
        $curve = Curve::flat();
        self::assertSame($curve, (new RangeChange(0.0, 1000))->of($curve, Span::of(5000, 9000), Span::of(0, self::LENGTH)));
    }

    /** @return array{Curve, Span, Span, float, int, bool} */
    private static function randomCase(int $seed): array
    {
        $random = new Random($seed);
        $curve = $random->curve(self::LENGTH, silence: 0 === $seed % 3);
        $from = $random->int(200, 30_000);
        $range = Span::of($from, $from + $random->int(10, 9000));
        $bounds = 0 === $seed % 4 ? Span::of($random->int(0, $from + 4), $range->to + $random->int(0, 600)) : Span::of(0, self::LENGTH);

        return [$curve, $range, $bounds, $random->float(-30.0, 18.0), 0 === $seed % 7 ? 0 : $random->int(1, 5000), 0 === $seed % 5];
    }
}
