<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Curve;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\Simplest;
use Wattage\Core\Curve\Sum;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Tests\support\Random;

/** Fewer keyframes, the same level; and two curves in one. */
final class SimplestTest extends TestCase
{
    /**
     * @param list<array{int, float, 2?: string}> $before
     * @param list<array{int, float}> $expected
     */
    #[DataProvider('curves')]
    public function testOnlyWhatIsNeededStays(array $before, array $expected): void
    {
        self::assertSame($expected, self::points(Simplest::of(self::curve($before), 0.03)));
    }

    /** @return iterable<string, array{list<array{int, float, 2?: string}>, list<array{int, float}>}> */
    public static function curves(): iterable
    {
        yield 'nothing' => [[], []];
        yield 'flat at 0 dB' => [[[0, 0.0], [100, 0.0]], []];
        yield 'a level that never moves' => [[[0, -12.0], [50, -12.0], [100, -12.0]], [[0, -12.0]]];
        yield 'a level before and after a ramp' => [[[0, -12.0], [50, -12.0], [100, 0.0], [200, 0.0]], [[50, -12.0], [100, 0.0]]];
        yield 'a point on a line' => [[[0, 0.0], [50, -5.0], [100, -10.0], [200, 3.0]], [[0, 0.0], [100, -10.0], [200, 3.0]]];
        yield 'a point a little off the line' => [[[0, 0.0], [50, -5.02], [100, -10.0]], [[0, 0.0], [100, -10.0]]];
        yield 'a point too far off' => [[[0, 0.0], [50, -5.2], [100, -10.0]], [[0, 0.0], [50, -5.2], [100, -10.0]]];
        yield 'steps' => [[[0, 0.0, 'hold'], [50, -6.0, 'hold'], [100, 0.0, 'hold']], [[0, 0.0], [50, -6.0], [100, 0.0]]];
        yield 'an S' => [[[0, 0.0, 'smooth'], [50, -6.0, 'smooth'], [100, -6.0]], [[0, 0.0], [50, -6.0]]];
        yield 'silence' => [[[0, -\INF], [50, -\INF], [100, 0.0]], [[0, -\INF], [50, -\INF], [100, 0.0]]];
    }

    public function testItIsTheSameLevelEverywhere(): void
    {
        $random = new Random(3);
        for ($case = 0; $case < 300; ++$case) {
            $curve = $random->curve(20_000);
            $simple = Simplest::of($curve, 0.03);
            self::assertLessThanOrEqual(\count($curve->keyframes), \count($simple->keyframes));
            for ($at = 0; $at < 22_000; $at += 97) {
                self::assertEqualsWithDelta($curve->levelAt($at)->db, $simple->levelAt($at)->db, 0.0301, "case {$case} at {$at}");
            }
        }
    }

    public function testASumHasTheLevelsOfBoth(): void
    {
        $random = new Random(4);
        for ($case = 0; $case < 200; ++$case) {
            $a = $random->curve(20_000, 0 === $case % 4);
            $b = $random->curve(20_000);
            $sum = Sum::of($a, $b, Span::of(0, 20_000));
            for ($at = 0; $at < 20_000; $at += 113) {
                $both = $a->levelAt($at)->db + $b->levelAt($at)->db;
                $tolerance = $both > -30.0 ? 0.06 : 0.5; // near silence a ramp in gain is steep in dB
                $both < -60.0 ? self::assertLessThan(-55.0, $sum->levelAt($at)->db) : self::assertEqualsWithDelta($both, $sum->levelAt($at)->db, $tolerance, "case {$case} at {$at}");
            }
        }
    }

    public function testManyKeyframesAddedAtOnceAreThoseAddedOneByOne(): void
    {
        $random = new Random(5);
        for ($case = 0; $case < 100; ++$case) {
            $curve = $random->curve(20_000, true);
            $positions = array_values(array_unique(array_map(static fn (): int => $random->int(0, 22_000), range(0, 8))));
            sort($positions);
            $oneByOne = array_reduce($positions, static fn (Curve $c, int $at): Curve => $c->withKeyframeAt($at), $curve);
            $atOnce = $curve->withKeyframesAt($positions);
            self::assertEquals(array_map(static fn (Keyframe $k): int => $k->position, $oneByOne->keyframes), array_map(static fn (Keyframe $k): int => $k->position, $atOnce->keyframes));
            for ($at = 0; $at < 22_000; $at += 101) {
                $is = $atOnce->levelAt($at)->db;
                self::assertTrue($is === $curve->levelAt($at)->db || abs($is - $curve->levelAt($at)->db) < 1e-6, "case {$case} at {$at}");
            }
        }
    }

    /** @param list<array{int, float, 2?: string}> $points */
    private static function curve(array $points): Curve
    {
        return Curve::of(array_map(static fn (array $p): Keyframe => new Keyframe($p[0], -\INF === $p[1] ? Decibels::silence() : Decibels::of($p[1]), match ($p[2] ?? 'line') {
            'hold' => Ramp::hold(),
            'smooth' => Ramp::smooth(),
            default => Ramp::line(),
        }), $points));
    }

    /** @return list<array{int, float}> */
    private static function points(Curve $curve): array
    {
        return array_map(static fn (Keyframe $k): array => [$k->position, $k->level->db], $curve->keyframes);
    }
}
