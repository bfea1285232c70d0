<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Clarity;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Clarity\Understood;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Voice;

/** STOI after Taal et al. 2011 and its extended form after Jensen and Taal 2016 [M]: what both papers say must hold of them. */
final class UnderstoodTest extends TestCase
{
    /** 1 for clean speech, whatever its level; falling with noise; the extended form falls sooner. */
    public function testItIsOneForCleanSpeechAndFallsWithNoise(): void
    {
        $speech = self::speech();
        $understood = new Understood();
        self::assertEqualsWithDelta([1.0, 1.0], \array_slice($understood->of($speech, array_map(static fn (float $x): float => 0.1 * $x, $speech)) ?? [], 0, 2), 1e-6);
        $before = [1.0, 1.0];
        foreach ([20.0, 10.0, 5.0, 0.0, -5.0, -10.0] as $ratio) {
            $found = $understood->of($speech, self::inNoise($speech, $ratio)) ?? self::fail();
            self::assertLessThan($before[0], $found[0], "{$ratio} dB");
            self::assertLessThan($before[1], $found[1], "{$ratio} dB");
            self::assertLessThan($found[0], $found[1]);
            $before = $found;
        }
        self::assertLessThan(0.65, $before[0]);
        self::assertLessThan(0.25, $before[1]);
    }

    /** A gain that moves slowly is no distortion of 384 ms; silence in place of the programme is none of it. */
    public function testSlowGainIsForgivenAndSilenceIsNot(): void
    {
        $speech = self::speech();
        $swelling = [];
        foreach ($speech as $i => $x) {
            $swelling[] = $x * 10.0 ** (0.3 * sin($i / 30_000));
        }
        [$plain] = (new Understood())->of($speech, $swelling) ?? self::fail();
        self::assertGreaterThan(0.97, $plain);
        [$plain, $extended] = (new Understood())->of($speech, array_fill(0, \count($speech), 0.0)) ?? self::fail();
        self::assertEqualsWithDelta([0.0, 0.0], [$plain, $extended], 0.01);
    }

    public function testWhereNobodySpeaksThereIsNothingToUnderstand(): void
    {
        self::assertNull((new Understood())->of([], []));
        self::assertNull((new Understood())->of(array_fill(0, 2000, 0.1), array_fill(0, 2000, 0.1)));
    }

    /** @return list<float> at 10 kHz */
    private static function speech(): array
    {
        $speech = [];
        foreach (array_chunk(Voice::saying([[0.2, 2.4], [3.0, 5.5]], 6.0), 24) as $part) {
            // Five samples of 24, each a mean of what is around it.
            for ($i = 0; $i < 5; ++$i) {
                $some = \array_slice($part, (int) ($i * 4.8), 5);
                $speech[] = array_sum($some) / max(1, \count($some));
            }
        }

        return $speech;
    }

    /**
     * @param list<float> $speech
     *
     * @return list<float>
     */
    private static function inNoise(array $speech, float $ratio): array
    {
        $random = new Random(4);
        $amplitude = 0.06 * sqrt(3.0) * 10.0 ** (-$ratio / 20.0);

        return array_map(static fn (float $x): float => $x + $random->float(-$amplitude, $amplitude), $speech);
    }
}
