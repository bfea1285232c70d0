<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Thinning;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Speech\Activity;
use Wattage\Core\Speech\Steady;
use Wattage\Core\Speech\SteadyPlan;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Demo;
use Wattage\Tests\support\Random;

final class SteadyTest extends TestCase
{
    /** The demo's uneven talk: deviation of short-term level while speaking falls to a third, with fewer than one keyframe in 2 s. */
    #[DataProvider('talks')]
    public function testUnevenTalkBecomesSteady(string $source): void
    {
        $demo = Demo::open();
        $length = $demo->mix->source($source)->length;
        $clip = new Clip('talk', $source, 'Talk', 0, 0, $length, Decibels::unchanged(), Curve::flat());
        $plan = SteadyPlan::of($demo->mix->withTrack(Track::named('talk', 'Talk', Stem::Speech)->withClip($clip)), $clip, $demo->tenths()($source), static fn (string $id): array => Activity::of($demo->blocks[$id], 48_000, 10.0), new Steady());
        self::assertNotNull($plan->curve);
        self::assertLessThanOrEqual($plan->before / 3, $plan->after);
        self::assertLessThan($length / 96_000, \count($plan->curve->keyframes));
    }

    /** @return iterable<array{string}> */
    public static function talks(): iterable
    {
        yield from [['narrator'], ['pair'], ['deck'], ['wheelhouse']];
    }

    public function testAPauseIsNotLiftedOverWhatItsNeighboursNeed(): void
    {
        // 6 s of speech at −26, a pause of 4 s with room noise, 6 s at −14.
        $powers = [...array_fill(0, 60, 10 ** -2.6), ...array_fill(0, 40, 1e-6), ...array_fill(0, 60, 10 ** -1.4)];
        $active = str_repeat("\1", 60).str_repeat("\0", 40).str_repeat("\1", 60);
        $correction = (new Steady())->correction($powers, $active);
        self::assertCount(160, $correction);
        self::assertLessThanOrEqual(max($correction[59], $correction[100]) + 1.0, max(\array_slice($correction, 60, 40)));
        self::assertGreaterThan(4.0, $correction[10], 'the quiet part is lifted');
        self::assertLessThan(-1.0, $correction[150], 'the loud part is lowered');
    }

    public function testLimitsHoldAndSlopesAreGentle(): void
    {
        $powers = [...array_fill(0, 50, 1e-6), ...array_fill(0, 50, 1e-1)];
        $correction = (new Steady(up: 6.0, down: 3.0))->correction($powers, str_repeat("\1", 100));
        self::assertLessThanOrEqual(6.001, max($correction));
        self::assertGreaterThanOrEqual(-3.001, min($correction));
        for ($k = 1; $k < 100; ++$k) {
            self::assertLessThanOrEqual(0.901, abs($correction[$k] - $correction[$k - 1]));
        }
    }

    public function testWithoutSpeechNothingIsChanged(): void
    {
        self::assertSame([], (new Steady())->correction(array_fill(0, 100, 0.1), str_repeat("\0", 100)));
        self::assertSame([], (new Steady())->correction(array_fill(0, 100, 0.0), str_repeat("\1", 100)));
        self::assertNull(Steady::unevenness([0.0], "\0"));
    }

    public function testAnOldCurveStaysUnderTheCorrection(): void
    {
        $old = Curve::of([new Keyframe(48_000, Decibels::of(0.0), Ramp::smooth()), new Keyframe(96_000, Decibels::of(-12.0), Ramp::line())]);
        $clip = new Clip('c', 's', 'C', 0, 0, 480_000, Decibels::unchanged(), $old);
        $curve = (new Steady())->curve($clip, array_fill(0, 100, 2.0), 48_000);
        foreach (range(0, 479_000, 7001) as $at) {
            self::assertEqualsWithDelta($old->levelAt($at)->db + 2.0, $curve->levelAt($at)->db, 0.8);
        }
        self::assertEqualsWithDelta(-10.0, $curve->levelAt(200_000)->db, 0.01);
    }

    public function testThinnedPointsStayWithinTheTolerance(): void
    {
        $random = new Random(12);
        $points = [];
        for ($i = 0, $level = 0.0; $i < 800; ++$i) {
            $points[] = [$i * 4800, $level += $random->float(-0.4, 0.4)];
        }
        foreach ([0.25, 1.0, 3.0] as $tolerance) {
            $kept = Thinning::of($points, $tolerance);
            $curve = Curve::of(array_map(static fn (array $p): Keyframe => new Keyframe($p[0], Decibels::of($p[1]), Ramp::line()), $kept));
            foreach ($points as [$at, $db]) {
                self::assertEqualsWithDelta($db, $curve->levelAt($at)->db, $tolerance + 1e-6);
            }
        }
        self::assertLessThan(\count(Thinning::of($points, 0.25)), \count(Thinning::of($points, 3.0)));
    }
}
