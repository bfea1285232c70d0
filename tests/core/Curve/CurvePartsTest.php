<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Curve;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Likeness;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RangeChange;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;

/** Parts of curves, where they begin and end to the sample, and curves that sound alike. */
final class CurvePartsTest extends TestCase
{
    public function testWhatIsEarlierAndWhatIsNotMeetsAtThePosition(): void
    {
        $curve = self::curve([100, 0.0], [200, -6.0], [300, 0.0]);
        self::assertSame([100], self::positions($curve->before(200)));
        self::assertSame([200, 300], self::positions($curve->from(200)));
    }

    public function testAPartHasNoKeyframesBeyondItAndTheSameLevels(): void
    {
        $curve = self::curve([100, 0.0], [200, -6.0], [300, 0.0]);
        self::assertSame([100, 200, 300], self::positions($curve->within(100, 300)->keyframes), 'which begins and ends where the part does, stays as it is');
        self::assertSame([150, 200, 250], self::positions($curve->within(150, 250)->keyframes));
        self::assertSame([101, 200, 299], self::positions($curve->within(101, 299)->keyframes));
        self::assertEqualsWithDelta(-3.0, $curve->within(150, 250)->levelAt(150)->db, 1e-9);
    }

    public function testStretchesMeetTheEndsOfASpanAndGoNoFurther(): void
    {
        $curve = self::curve([100, 0.0], [200, -6.0], [300, 0.0]);
        $under = static fn (int $from, int $to): array => array_map(static fn (Stretch $s): array => [$s->from, $s->to], $curve->stretchesWithin(Span::of($from, $to)));
        self::assertSame([[200, 300]], $under(200, 300));
        self::assertSame([[100, 200]], $under(100, 200));
        self::assertSame([[100, 200], [200, 300]], $under(199, 201));
    }

    public function testShiftedBeforeTheBeginningItKeepsTheLevelThere(): void
    {
        $curve = self::curve([100, 0.0], [200, -6.0]);
        self::assertSame([0, 100], self::positions($curve->shiftedWithin(-100)->keyframes));
        $half = $curve->shiftedWithin(-150);
        self::assertSame([0, 50], self::positions($half->keyframes));
        self::assertEqualsWithDelta(-3.0, $half->levelAt(0)->db, 1e-9);
        self::assertEqualsWithDelta(-6.0, $curve->shiftedWithin(-900)->levelAt(0)->db, 1e-9);
        self::assertSame([1000, 1100], self::positions($curve->shiftedWithin(900)->keyframes));
    }

    public function testCurvesSoundAlikeOrNotAtTheirPointsAndBetweenThem(): void
    {
        $line = self::curve([0, 0.0], [1000, -6.0]);
        self::assertTrue(Likeness::of($line, self::curve([0, 0.04], [500, -3.0], [1000, -6.0])));
        self::assertFalse(Likeness::of($line, self::curve([0, 0.0], [1000, -6.1])), 'a point is off');
        self::assertFalse(Likeness::of($line, Curve::of([new Keyframe(0, Decibels::of(0.0), Ramp::hold()), new Keyframe(1000, Decibels::of(-6.0), Ramp::line())])), 'the points agree, what lies between does not');
        $touching = Curve::of([new Keyframe(0, Decibels::of(-1.5), Ramp::line()), new Keyframe(500, Decibels::of(-3.0), Ramp::line()), new Keyframe(1000, Decibels::of(-6.0), Ramp::line())]);
        self::assertFalse(Likeness::of($line, $touching));
        self::assertTrue(Likeness::of(Curve::flat(), Curve::flat()));
    }

    /** A dip whose ramps lie over an old S: within it all is lower by as much, beside it nothing changed, and taken back it is as it was. */
    public function testADipOverASmoothRampComesOffAgain(): void
    {
        $old = Curve::of([new Keyframe(10_000, Decibels::of(0.0), Ramp::smooth()), new Keyframe(40_000, Decibels::of(-12.0), Ramp::line()), new Keyframe(90_000, Decibels::of(-2.0), Ramp::line())]);
        $bounds = Span::of(0, 100_000);
        foreach ([[20_000, 70_000], [30_000, 60_000], [40_000, 80_000]] as [$from, $to]) {
            $dipped = (new RangeChange(-9.0, 8000))->of($old, Span::of($from, $to), $bounds);
            foreach ([$from, intdiv($from + $to, 2), $to] as $at) {
                self::assertEqualsWithDelta($old->levelAt($at)->db - 9.0, $dipped->levelAt($at)->db, 1e-6, "at {$at}");
            }
            foreach ([0, $from - 8001, $to + 8001] as $at) {
                self::assertEqualsWithDelta($old->levelAt($at)->db, $dipped->levelAt($at)->db, 1e-6, "at {$at}");
            }
            $back = (new RangeChange(9.0, 8000))->of($dipped, Span::of($from, $to), $bounds);
            for ($at = 0; $at < 100_000; $at += 501) {
                self::assertEqualsWithDelta($old->levelAt($at)->db, $back->levelAt($at)->db, 1e-6, "at {$at}");
            }
        }
    }

    public function testEasesMayFillTheRampAndNoMore(): void
    {
        self::assertSame(0.0, Ramp::smooth(0.0, 1.0)->easeOut);
        self::assertSame(1.0, Ramp::smooth(0.6, 0.4)->windowTo);
        foreach ([[-0.1, 0.5, 0.0, 1.0], [0.5, -0.1, 0.0, 1.0], [0.6, 0.5, 0.0, 1.0], [0.5, 0.5, 0.5, 0.5], [0.5, 0.5, -0.1, 1.0], [0.5, 0.5, 0.0, 1.1]] as $wrong) {
            try {
                Ramp::smooth(...$wrong);
                self::fail(implode(' ', $wrong).' was taken.');
            } catch (InvalidCurve $problem) {
                self::assertStringContainsString('ramp', $problem->getMessage());
            }
        }
    }

    /** @param array{int, float} ...$points */
    private static function curve(array ...$points): Curve
    {
        return Curve::of(array_map(static fn (array $p): Keyframe => new Keyframe($p[0], Decibels::of($p[1]), Ramp::line()), array_values($points)));
    }

    /**
     * @param list<Keyframe> $keyframes
     *
     * @return list<int>
     */
    private static function positions(array $keyframes): array
    {
        return array_map(static fn (Keyframe $k): int => $k->position, $keyframes);
    }
}
