<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Fade;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeRamp;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Fade\InvalidFade;

final class FadeTest extends TestCase
{
    #[DataProvider('shapes')]
    public function testEveryShapeRisesFromNothingToAll(FadeShape $shape): void
    {
        self::assertEqualsWithDelta(0.0, $shape->gainAt(0.0), 1e-9);
        self::assertEqualsWithDelta(1.0, $shape->gainAt(1.0), 1e-9);
        for ($i = 1; $i <= 100; ++$i) {
            self::assertGreaterThan($shape->gainAt(($i - 1) / 100), $shape->gainAt($i / 100));
        }
    }

    /** The bounds decide how fine the points of a fade are; measured here by differences. */
    #[DataProvider('shapes')]
    public function testItsDerivativesStayWithinTheirBounds(FadeShape $shape): void
    {
        $h = 1e-4;
        for ($x = $h; $x < 1.0 - $h; $x += 0.001) {
            self::assertLessThanOrEqual($shape->steepest() + 1e-6, abs($shape->gainAt($x + $h) - $shape->gainAt($x - $h)) / (2 * $h));
            self::assertLessThanOrEqual($shape->sharpest() + 1e-3, abs($shape->gainAt($x + $h) - 2 * $shape->gainAt($x) + $shape->gainAt($x - $h)) / $h ** 2);
        }
    }

    /** architecture.md: straight lines between the points of a schedule stay below −100 dBFS of the ideal shape. */
    #[DataProvider('shapes')]
    public function testThePointsOfAFadeAreFineEnough(FadeShape $shape): void
    {
        foreach ([200, 4800, 96_000] as $length) {
            foreach ([false, true] as $falling) {
                $stretch = Stretch::decibels(0, $length, -3.0, -6.0, 2.0)->times(new FadeRamp(0, $length, Fade::of($length, $shape), $falling));
                for ($position = 0; $position < $length; $position += 7) {
                    self::assertEqualsWithDelta($stretch->gainAt($position), $stretch->appliedGainAt($position), 1.001e-5);
                }
            }
        }
    }

    /** @return iterable<string, array{FadeShape}> */
    public static function shapes(): iterable
    {
        foreach (FadeShape::cases() as $shape) {
            yield $shape->value => [$shape];
        }
    }

    /** Definition: cos² + sin² = 1. */
    public function testTwoEqualPowerFadesKeepThePower(): void
    {
        for ($x = 0.0; $x <= 1.0; $x += 0.01) {
            self::assertEqualsWithDelta(1.0, FadeShape::EqualPower->gainAt($x) ** 2 + FadeShape::EqualPower->gainAt(1.0 - $x) ** 2, 1e-12);
            self::assertEqualsWithDelta(1.0, FadeShape::Linear->gainAt($x) + FadeShape::Linear->gainAt(1.0 - $x), 1e-12);
            self::assertEqualsWithDelta(1.0, FadeShape::S->gainAt($x) + FadeShape::S->gainAt(1.0 - $x), 1e-12);
        }
    }

    public function testTheHalvesOfACutFadeFollowTheWhole(): void
    {
        $whole = Fade::of(1000, FadeShape::S);
        [$first, $second] = $whole->cutAt(300);
        $ramp = new FadeRamp(0, 1000, $whole, false);
        self::assertEqualsWithDelta($ramp->gainAt(150), (new FadeRamp(0, 300, $first, false))->gainAt(150), 1e-12);
        self::assertEqualsWithDelta($ramp->gainAt(700), (new FadeRamp(300, 1000, $second, false))->gainAt(700), 1e-12);
        self::assertTrue($first->goesOnIn($second));
        self::assertEquals($whole, $first->joinedWith($second));
        self::assertFalse($second->goesOnIn($first));
    }

    public function testBadFadesAreRefused(): void
    {
        foreach ([static fn (): Fade => Fade::of(-1), static fn (): Fade => Fade::of(1, FadeShape::S, 0.5, 0.5), static fn (): Fade => Fade::of(1, FadeShape::S, 0.0, 1.5)] as $make) {
            try {
                $make();
                self::fail('It was accepted.');
            } catch (InvalidFade $problem) {
                self::assertStringEndsWith('.', $problem->getMessage());
            }
        }
    }
}
