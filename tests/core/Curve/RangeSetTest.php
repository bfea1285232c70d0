<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Curve;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\InvalidCurve;
use Wattage\Core\Curve\Notch;
use Wattage\Core\Curve\RangeSet;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\Span;
use Wattage\Tests\support\Random;

/** Bringing a range to one level, and the notch: what they change, and that everything else stays exactly as it was. */
final class RangeSetTest extends TestCase
{
    private const LENGTH = 48_000;

    #[DataProvider('cases')]
    public function testInsideItHasTheLevelAndOutsideTheCurveIsExactlyAsBefore(int $seed, int $ramp, bool $inside): void
    {
        $random = new Random($seed);
        $curve = $random->curve(self::LENGTH, silence: true);
        $from = $random->int(0, 30_000);
        $to = $random->int($from + 4000, self::LENGTH);
        $level = 0 === $seed % 4 ? Decibels::silence() : Decibels::of($random->float(-40, 6));
        $set = (new RangeSet($level, $ramp, $inside))->of($curve, Span::of($from, $to), Span::of(0, self::LENGTH));
        $margin = $inside ? 0 : $ramp;
        for ($t = 0; $t < self::LENGTH; $t += 53) {
            if ($t < $from - $margin - 1 || $t >= $to + $margin) {
                self::assertEqualsWithDelta(self::gain($curve, $t), self::gain($set, $t), 1e-9, "outside, at {$t}");
            }
            if ($t >= $from + ($inside ? $ramp : 0) && $t < $to - ($inside ? $ramp : 0) - 1) {
                self::assertEqualsWithDelta($level->ratio(), self::gain($set, $t), 1e-9, "inside, at {$t}");
            }
        }
    }

    /** @return iterable<array{int, int, bool}> */
    public static function cases(): iterable
    {
        for ($seed = 1; $seed <= 24; ++$seed) {
            yield [$seed, [0, 1, 480, 9600][$seed % 4], 0 === $seed % 3 && 9600 !== [0, 1, 480, 9600][$seed % 4]];
        }
    }

    public function testARangeBesideTheCurveOrTooShortOrTooLoudIsRefused(): void
    {
        $bounds = Span::of(0, 1000);
        foreach ([[0.0, Span::of(2000, 3000)], [0.0, Span::of(10, 12)], [25.0, Span::of(10, 500)]] as [$db, $range]) {
            try {
                (new RangeSet(Decibels::of($db), 10))->of(Curve::flat(), $range, $bounds);
                self::fail('It was accepted.');
            } catch (InvalidCurve $problem) {
                self::assertNotSame('', $problem->field());
            }
        }
    }

    #[DataProvider('seeds')]
    public function testANotchIsAsDeepAsAskedAtItsPointAndNothingBesideIt(int $seed): void
    {
        $random = new Random(100 + $seed);
        $curve = $random->curve(self::LENGTH);
        $notch = new Notch($random->int(2000, 40_000), -$random->float(0.5, 20.0), $random->int(240, 1500), $random->int(240, 1500));
        $notched = $notch->of($curve, Span::of(0, self::LENGTH));
        self::assertEqualsWithDelta($curve->levelAt($notch->at)->db + $notch->by, $notched->levelAt($notch->at)->db, 1e-9);
        for ($t = 0; $t < self::LENGTH; $t += 31) {
            $expected = self::gain($curve, $t) * 10 ** ($notch->differenceAt($t) / 20);
            if ($t < $notch->at - $notch->before || $t > $notch->at + $notch->after) {
                self::assertEqualsWithDelta(self::gain($curve, $t), self::gain($notched, $t), 1e-9, "outside, at {$t}");
            } else {
                self::assertLessThanOrEqual(self::gain($curve, $t) + 1e-9, self::gain($notched, $t));
                self::assertGreaterThan($expected * 0.5, self::gain($notched, $t) + 1e-6);
            }
        }
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 12; ++$seed) {
            yield [$seed];
        }
    }

    private static function gain(Curve $curve, int $position): float
    {
        return $curve->levelAt($position)->ratio();
    }
}
