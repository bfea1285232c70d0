<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Ducking\Dip;
use Wattage\Core\Ducking\LaneBuilder;
use Wattage\Tests\support\Random;

final class LaneBuilderTest extends TestCase
{
    /**
     * @param list<Dip> $dips
     * @param list<array{int, float}> $expected
     */
    #[DataProvider('dips')]
    public function testDipsBecomeALane(array $dips, array $expected): void
    {
        self::assertSame($expected, array_map(static fn (Keyframe $k): array => [$k->position, $k->level->db], LaneBuilder::of($dips)->keyframes));
    }

    /** @return iterable<string, array{list<Dip>, list<array{int, float}>}> */
    public static function dips(): iterable
    {
        $dip = static fn (int $from, int $to, float $depth = -12.0): Dip => new Dip($from, $to, $depth, 100, 200);
        yield 'none' => [[], []];
        yield 'one' => [[$dip(1000, 2000)], [[900, 0.0], [1000, -12.0], [2000, -12.0], [2200, 0.0]]];
        yield 'two apart, in any order' => [[$dip(3000, 4000), $dip(1000, 2000)], [[900, 0.0], [1000, -12.0], [2000, -12.0], [2200, 0.0], [2900, 0.0], [3000, -12.0], [4000, -12.0], [4200, 0.0]]];
        yield 'just room to come back' => [[$dip(1000, 2000), $dip(2300, 3000)], [[900, 0.0], [1000, -12.0], [2000, -12.0], [2200, 0.0], [2300, -12.0], [3000, -12.0], [3200, 0.0]]];
        yield 'no room: it stays down' => [[$dip(1000, 2000), $dip(2299, 3000)], [[900, 0.0], [1000, -12.0], [3000, -12.0], [3200, 0.0]]];
        yield 'over one another, the deeper holds' => [[$dip(1000, 3000, -6.0), $dip(1500, 2000, -20.0)], [[900, 0.0], [1000, -6.0], [1400, -6.0], [1500, -20.0], [2000, -20.0], [2200, -6.0], [3000, -6.0], [3200, 0.0]]];
        yield 'a deeper one soon after' => [[$dip(1000, 2000, -6.0), $dip(2150, 3000, -20.0)], [[900, 0.0], [1000, -6.0], [2050, -6.0], [2150, -20.0], [3000, -20.0], [3200, 0.0]]];
        yield 'from the very start' => [[$dip(0, 500)], [[0, -12.0], [500, -12.0], [700, 0.0]]];
        yield 'a start too near for its ramp' => [[$dip(40, 500)], [[0, 0.0], [40, -12.0], [500, -12.0], [700, 0.0]]];
    }

    public function testAnythingAtAllBecomesALaneThatIsDownWhereItMustBe(): void
    {
        $random = new Random(12);
        for ($n = 0; $n < 200; ++$n) {
            $dips = [];
            for ($i = 0, $count = $random->int(1, 9); $i < $count; ++$i) {
                $from = $random->int(0, 5000);
                $dips[] = new Dip($from, $from + $random->int(1, 800), -$random->int(1, 30), $random->int(1, 300), $random->int(1, 300));
            }
            $lane = LaneBuilder::of($dips);
            foreach ($dips as $dip) {
                // A ramp up from a deeper one before it may still be under way; it never lies above.
                self::assertLessThanOrEqual($dip->depth + 1e-9, $lane->levelAt($dip->from)->db);
                $dip->to - $dip->from < 2 || self::assertLessThanOrEqual($dip->depth + 1e-9, $lane->levelAt($dip->to - 1)->db);
            }
        }
    }
}
