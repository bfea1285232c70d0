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
use Wattage\Core\Speech\Pauses;
use Wattage\Core\Speech\Steady;
use Wattage\Core\Speech\SteadyPlan;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Demo;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Voice;

final class SteadyTest extends TestCase
{
    /** The demo's uneven talk: deviation of short-term level while speaking falls to a third, with fewer than one keyframe in 2 s, and four for each pause. */
    #[DataProvider('talks')]
    public function testUnevenTalkBecomesSteady(string $source): void
    {
        $demo = Demo::open();
        $length = $demo->mix->source($source)->length;
        $clip = new Clip('talk', $source, 'Talk', 0, 0, $length, Decibels::unchanged(), Curve::flat());
        $plan = SteadyPlan::of($demo->mix->withTrack(Track::named('talk', 'Talk', Stem::Speech)->withClip($clip)), $clip, $demo->tenths()($source), static fn (string $id): array => Activity::of($demo->blocks[$id], 48_000, 10.0), new Steady());
        self::assertNotNull($plan->curve);
        // One that is even already need not become more so.
        self::assertLessThanOrEqual(max(0.5, $plan->before / 3), $plan->after);
        $pauses = preg_match_all('/\x00{4,}/', $plan->active);
        self::assertLessThan($length / 96_000 + 4 * $pauses, \count($plan->curve->keyframes));
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

    /**
     * A talk with sentences of many levels, room noise, and slams in its pauses: the spread of the sentences falls to a third, pauses are lifted by 0.5 dB at most
     * whatever is chosen for them, no peak passes the ceiling; measured in samples that go through the curve.
     */
    #[DataProvider('pauses')]
    public function testATalkWithSlamsIsSteadiedAndNothingElseIsLifted(Pauses $pauses): void
    {
        $random = new Random(21);
        $times = [];
        for ($at = 0.8; $at < 66.0; $at += $length + $random->float(0.8, 2.5)) {
            $length = $random->float(1.5, 4.0);
            $times[] = [$at, $at + $length, 10.0 ** ($random->float(-9, 5) / 20)];
        }
        $samples = Voice::saying($times, 72.0, 0.05, 4);
        $noise = new Noise($random);
        $room = $noise->steady('pink', \count($samples), 0.0006);
        $slams = [];
        foreach ($times as $i => [, $to]) {
            if (0 === $i % 3) {
                $slams[] = $to + 0.35;
                foreach ($noise->event('slam', 0.7) as $k => $x) {
                    $room[(int) (($to + 0.35) * Heard::RATE) + $k] += $x;
                }
            }
        }
        $samples = array_map(static fn (float $x, float $y): float => $x + $y, $samples, $room);
        $heard = Heard::in($samples);
        $clip = new Clip('talk', 'src', 'Talk', 0, 0, \count($samples), Decibels::unchanged(), Curve::flat());
        $track = Track::named('talk', 'Talk', Stem::Speech)->withClip($clip);
        $mix = Mix::empty()->withSource(new Source('src', 'src', \count($samples), 1, Decibels::unchanged()))->withTrack($track);
        $plan = SteadyPlan::of($mix, $clip, $heard->tenths, static fn (): array => $heard->speech(), new Steady(up: 15.0, down: 15.0, pauses: $pauses));
        $curve = $plan->curve ?? self::fail();

        $level = static fn (float $from, float $to, bool $steadied): float => 10.0 * log10(self::mean($samples, $steadied ? $curve : Curve::flat(), $from, $to));
        $spread = static function (bool $steadied) use ($times, $level): float {
            $levels = array_map(static fn (array $t): float => $level($t[0], $t[1], $steadied), $times);
            $mean = array_sum($levels) / \count($levels);

            return sqrt(array_sum(array_map(static fn (float $l): float => ($l - $mean) ** 2, $levels)) / \count($levels));
        };
        self::assertLessThanOrEqual($spread(false) / 3.0, $spread(true), 'spread of the sentences');
        for ($i = 1; $i < \count($times); ++$i) {
            [$from, $to] = [$times[$i - 1][1] + 0.3, $times[$i][0] - 0.25];
            self::assertLessThanOrEqual($level($from, $to, false) + 0.5, $level($from, $to, true), "pause before {$times[$i][0]} s");
            // In its middle: at its edges the speech beside it still counts.
            [$from, $to] = [$from + 0.2, $to - 0.1];
            if (1 !== $i % 3 && $to - $from > 0.2 && Pauses::Follow !== $pauses) {
                self::assertEqualsWithDelta($level($from, $to, false) - (Pauses::Hush === $pauses ? 6.0 : 0.0), $level($from, $to, true), 1.0);
            }
        }
        $highest = 0.0;
        foreach ($samples as $i => $x) {
            abs($x) > 0.15 && $highest = max($highest, abs($x) * $curve->levelAt($i)->ratio());
        }
        self::assertLessThanOrEqual(10.0 ** (-3.0 / 20), $highest);
        self::assertNotEmpty($slams);
    }

    /** @return iterable<array{Pauses}> */
    public static function pauses(): iterable
    {
        foreach (Pauses::cases() as $pauses) {
            yield $pauses->value => [$pauses];
        }
    }

    /** What is above the ceiling already stays where it is. */
    public function testAPeakAboveTheCeilingIsNotLiftedAndOthersUpToIt(): void
    {
        $steady = new Steady();
        self::assertEqualsWithDelta([0.0, 0.0, 0.0, 3.02, 17.0, 17.0], $steady->limits([1.0, 0.75, 0.5, 0.1, 0.1, 0.1]), 0.01, 'those beside a peak are held with it');
        $powers = array_fill(0, 100, 1e-4);
        $limits = array_fill(0, 100, 20.0);
        $limits[50] = 1.0;
        $correction = (new Steady(target: -30.0))->correction($powers, str_repeat("\1", 100), $limits);
        self::assertEqualsWithDelta(9.0, $correction[20], 0.1);
        self::assertLessThanOrEqual(1.0, max($correction[49], $correction[50], $correction[51]));
    }

    /** @param list<float> $samples */
    private static function mean(array $samples, Curve $curve, float $from, float $to): float
    {
        $sum = $n = 0;
        for ($i = (int) ($from * Heard::RATE), $end = (int) ($to * Heard::RATE); $i < $end; $i += 7) {
            $sum += ($samples[$i] * $curve->levelAt($i)->ratio()) ** 2;
            ++$n;
        }

        return max(1e-12, $sum / max(1, $n));
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
