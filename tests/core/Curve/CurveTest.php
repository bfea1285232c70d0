<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Curve;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Ease;
use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Tests\support\Random;

final class CurveTest extends TestCase
{
    public function testWithoutKeyframesTheLevelIsUnchangedEverywhere(): void
    {
        self::assertSame(0.0, Curve::flat()->levelAt(123_456)->db);
    }

    public function testTheLevelStaysBeforeTheFirstAndAfterTheLastKeyframe(): void
    {
        $curve = self::curve([100, -6.0, Ramp::line()], [200, -12.0, Ramp::line()]);
        self::assertSame(-6.0, $curve->levelAt(0)->db);
        self::assertSame(-12.0, $curve->levelAt(10_000)->db);
    }

    public function testALineIsStraightInDecibels(): void
    {
        $curve = self::curve([0, 0.0, Ramp::line()], [1000, -20.0, Ramp::line()]);
        self::assertEqualsWithDelta(-5.0, $curve->levelAt(250)->db, 1e-12);
    }

    public function testASmoothRampIsFlatAtBothEndsAndHalfWayInTheMiddle(): void
    {
        $curve = self::curve([0, 0.0, Ramp::smooth()], [1000, -20.0, Ramp::line()]);
        self::assertEqualsWithDelta(-10.0, $curve->levelAt(500)->db, 1e-12);
        self::assertGreaterThan(-0.01, $curve->levelAt(10)->db);
        self::assertLessThan(-19.99, $curve->levelAt(990)->db);
    }

    public function testEaseOutAndEaseInAreShapedSeparately(): void
    {
        // No ease at all is a straight line; all ease-out gathers speed to the very end.
        self::assertSame(0.25, Ease::at(0.25, 0.0, 0.0));
        self::assertSame(0.0625, Ease::at(0.25, 1.0, 0.0));
        self::assertEqualsWithDelta(1.0 - 0.0625, Ease::at(0.75, 0.0, 1.0), 1e-12);
        foreach ([[0.5, 0.5], [0.1, 0.7], [1.0, 0.0]] as [$out, $in]) {
            self::assertEqualsWithDelta(0.0, Ease::at(0.0, $out, $in), 1e-12);
            self::assertEqualsWithDelta(1.0, Ease::at(1.0, $out, $in), 1e-12);
        }
    }

    public function testAHoldStepsAtTheNextKeyframe(): void
    {
        $curve = self::curve([0, 0.0, Ramp::hold()], [1000, -20.0, Ramp::line()]);
        self::assertSame(0.0, $curve->levelAt(999)->db);
        self::assertSame(-20.0, $curve->levelAt(1000)->db);
    }

    public function testARampFromSilenceIsStraightInGain(): void
    {
        $curve = self::curve([0, -\INF, Ramp::smooth()], [1000, 0.0, Ramp::line()]);
        self::assertEqualsWithDelta(0.25, $curve->levelAt(250)->ratio(), 1e-12);
        self::assertTrue($curve->levelAt(0)->isSilence());
    }

    public function testWalkedAlongItIsAtEachPlaceWhatItIsThere(): void
    {
        $random = new Random(11);
        for ($round = 0; $round < 50; ++$round) {
            $curve = $random->curve(4000, true);
            $places = range(0, 4500, $random->int(1, 90));
            self::assertSame(array_map(static fn (int $at): float => $curve->levelAt($at)->db, $places), $curve->levelsAt($places));
        }
    }

    public function testAddingAKeyframeChangesTheLevelNowhere(): void
    {
        for ($seed = 0; $seed < 60; ++$seed) {
            $random = new Random($seed);
            $before = $random->curve(20_000, silence: true);
            $after = $before->withKeyframeAt($random->int(0, 19_999))->withKeyframeAt($random->int(0, 19_999));
            self::assertSameLevels($before, $after, 20_000, "seed {$seed}");
        }
    }

    public function testRemovingAnAddedKeyframeGivesTheOldCurveBack(): void
    {
        for ($seed = 0; $seed < 60; ++$seed) {
            $random = new Random($seed);
            $before = $random->curve(20_000);
            $position = $random->int(0, 19_999);
            if ($before->hasKeyframeAt($position) || \count($before->keyframes) < 2) {
                continue;
            }
            self::assertSameLevels($before, $before->withKeyframeAt($position)->without($position), 20_000, "seed {$seed}");
        }
    }

    public function testKeyframesMustRise(): void
    {
        $this->expectException(InvalidCurve::class);
        self::curve([200, 0.0, Ramp::line()], [200, 0.0, Ramp::line()]);
    }

    public function testAKeyframeThatIsGoneIsNamed(): void
    {
        $this->expectExceptionMessage('moved or removed meanwhile (sample 77)');
        self::curve([200, 0.0, Ramp::line()])->without(77);
    }

    #[DataProvider('badRamps')]
    public function testARampThatFitsNothingIsRefused(float $out, float $in, float $from, float $to, float $tilt): void
    {
        $this->expectException(InvalidCurve::class);
        Ramp::smooth($out, $in, $from, $to, $tilt);
    }

    /** @return iterable<string, array{float, float, float, float, float}> */
    public static function badRamps(): iterable
    {
        yield 'eases longer than the ramp' => [0.7, 0.7, 0.0, 1.0, 0.0];
        yield 'negative ease' => [-0.1, 0.5, 0.0, 1.0, 0.0];
        yield 'reversed window' => [0.5, 0.5, 0.8, 0.2, 0.0];
        yield 'endless tilt' => [0.5, 0.5, 0.0, 1.0, \INF];
        yield 'NAN' => [\NAN, 0.5, 0.0, 1.0, 0.0];
    }

    public function testStretchesFollowOneAnotherAndSayWhatTheCurveSays(): void
    {
        for ($seed = 0; $seed < 40; ++$seed) {
            $random = new Random($seed);
            $curve = $random->curve(20_000, silence: true);
            $from = $random->int(0, 15_000);
            $span = Span::of($from, $from + $random->int(10, 5000));
            $stretches = $curve->stretchesWithin($span);
            self::assertLessThanOrEqual($span->from, $stretches[0]->from);
            self::assertGreaterThanOrEqual($span->to, $stretches[\count($stretches) - 1]->to);
            foreach ($stretches as $i => $stretch) {
                $i > 0 && self::assertSame($stretches[$i - 1]->to, $stretch->from, "seed {$seed}");
                foreach ([$stretch->from, intdiv($stretch->from + $stretch->to, 2), $stretch->to - 1] as $position) {
                    self::assertEqualsWithDelta($curve->levelAt($position)->ratio(), $stretch->gainAt($position), 1e-5, "seed {$seed} at {$position}"); // parabolas meet on whole samples: below −100 dB
                }
            }
        }
    }

    public function testAnSOfTwoHalvesIsTwoParabolas(): void
    {
        $stretches = self::curve([0, 0.0, Ramp::smooth()], [1000, -20.0, Ramp::line()])->stretchesWithin(Span::of(0, 1000));
        self::assertCount(2, $stretches);
        self::assertEqualsWithDelta(-10.0, $stretches[0]->bend, 1e-9);
        self::assertEqualsWithDelta(10.0, $stretches[1]->bend, 1e-9);
    }

    public function testAStraightStretchOfASlopedSmoothRampIsExponential(): void
    {
        $stretches = self::curve([0, 0.0, Ramp::smooth(0.2, 0.2)], [1000, -20.0, Ramp::line()])->stretchesWithin(Span::of(0, 1000));
        self::assertCount(3, $stretches);
        self::assertFalse($stretches[1]->isSampled());
        self::assertSame(RampKind::Smooth, Ramp::smooth()->kind);
    }

    private static function assertSameLevels(Curve $expected, Curve $actual, int $length, string $message): void
    {
        for ($position = 0; $position < $length; $position += 13) {
            self::assertEqualsWithDelta($expected->levelAt($position)->ratio(), $actual->levelAt($position)->ratio(), 1e-11, "{$message} at {$position}");
        }
    }

    /** @param array{int, float, Ramp} ...$points */
    private static function curve(array ...$points): Curve
    {
        return Curve::of(array_values(array_map(static fn (array $p): Keyframe => new Keyframe($p[0], Decibels::of($p[1]), $p[2]), $points)));
    }
}
