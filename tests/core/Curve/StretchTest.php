<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Curve;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeRamp;
use Wattage\Core\Fade\FadeShape;

final class StretchTest extends TestCase
{
    /** levels.md: points stand so close that straight lines between them stay within −100 dB of the shape; and no closer than that takes. */
    #[DataProvider('bent')]
    public function testItsPointsAreAsCloseAsTheShapeAsksFor(Stretch $stretch): void
    {
        self::assertLessThanOrEqual(1e-5 * $stretch->highest(), self::furthest($stretch, $stretch->grid));
        if ($stretch->grid < 384) {
            // The next spacing is up to three times as wide: then it would be too far off, give or take that the bound is one for all of it.
            self::assertGreaterThan(1e-6 * $stretch->highest(), self::furthest($stretch, 4 * $stretch->grid), "grid {$stretch->grid}");
        }
        self::assertGreaterThanOrEqual(self::gains($stretch, self::higher(...)) - 1e-12, $stretch->highest());
        [] !== $stretch->factors || self::assertEqualsWithDelta(self::gains($stretch, self::higher(...)), $stretch->highest(), 2e-3);
    }

    /** @return iterable<string, array{Stretch}> */
    public static function bent(): iterable
    {
        yield 'a slow S' => [Stretch::decibels(0, 96_000, 0.0, 0.0, -12.0)];
        yield 'a quick one' => [Stretch::decibels(1000, 3000, -3.0, -4.0, 24.0)];
        yield 'over the top' => [Stretch::decibels(0, 24_000, 0.0, 24.0, -24.0)];
        yield 'rising, then bent back' => [Stretch::decibels(0, 4_800, -20.0, 30.0, -8.0)];
        foreach (FadeShape::cases() as $shape) {
            foreach ([480, 48_000] as $length) {
                yield "a fade, {$shape->value}, {$length}" => [Stretch::decibels(0, $length, -6.0, 9.0)->times(new FadeRamp(0, $length, Fade::of($length, $shape), false))];
                yield "a falling fade of gain, {$shape->value}, {$length}" => [Stretch::gain(0, $length, 0.2, 0.9)->times(new FadeRamp(0, $length, Fade::of($length, $shape), true))];
            }
        }
    }

    #[DataProvider('bent')]
    public function testAPartOfItIsTheSame(Stretch $stretch): void
    {
        [$from, $to] = [$stretch->from + 17, $stretch->to - 101];
        $part = $stretch->cut($from, $to);
        self::assertSame([$from, $to], [$part->from, $part->to]);
        foreach ([$from, $from + 1, intdiv($from + $to, 2), $to - 1, $to] as $at) {
            self::assertEqualsWithDelta($stretch->gainAt($at), $part->gainAt($at), 1e-12);
        }
    }

    /** Furthest that straight lines between points so many samples apart are from the shape. */
    private static function furthest(Stretch $stretch, int $grid): float
    {
        $worst = 0.0;
        for ($left = $stretch->from; $left < $stretch->to; $left += $grid) {
            $right = min($left + $grid, $stretch->to);
            [$a, $b] = [$stretch->gainAt($left), $stretch->gainAt($right)];
            for ($at = $left + 1; $at < $right; $at += max(1, intdiv($grid, 8))) {
                $worst = max($worst, abs($a + ($b - $a) * ($at - $left) / ($right - $left) - $stretch->gainAt($at)));
            }
        }

        return $worst;
    }

    /** @param callable(float, float): float $of */
    private static function gains(Stretch $stretch, callable $of): float
    {
        $found = $stretch->gainAt($stretch->from);
        for ($at = $stretch->from; $at <= $stretch->to; $at += max(1, intdiv($stretch->to - $stretch->from, 500))) {
            $found = $of($found, $stretch->gainAt($at));
        }

        return $found;
    }

    private static function higher(float $a, float $b): float
    {
        return max($a, $b);
    }
}
