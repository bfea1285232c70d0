<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\LevelZone;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Zone;

final class LevelZoneTest extends TestCase
{
    public function testSpeechThatIsTooQuietOrTooLoudIsFoundWhereSomebodySpeaks(): void
    {
        $powers = [...self::at(-20.0, 50), ...self::at(-32.0, 40), ...self::at(-20.0, 30), ...self::at(-8.0, 30), ...self::at(-50.0, 50)];
        $found = self::usual(Stem::Speech)->outside(Series::of($powers), str_repeat("\1", 150));
        self::assertCount(2, $found, 'the room noise at the end is no speech');
        self::assertEqualsWithDelta([50, 90, -6.0], $found[0], 3.0);
        self::assertEqualsWithDelta(-6.0, $found[0][2], 0.05);
        self::assertEqualsWithDelta(6.0, $found[1][2], 0.05);
    }

    public function testABedMayBeAsSoftAsItLikes(): void
    {
        $bed = self::usual(Stem::Music);
        self::assertSame([], $bed->outside(Series::of([...self::at(-60.0, 100), ...self::at(-20.0, 100)]), ''));
        self::assertCount(1, $bed->outside(Series::of([...self::at(-20.0, 50), ...self::at(-10.0, 20), ...self::at(-20.0, 50)]), ''));
    }

    public function testAShortSoundAndSilenceAreLetAlone(): void
    {
        $powers = [...self::at(-20.0, 50), ...self::at(-9.0, 3), ...self::at(-20.0, 50), ...array_fill(0, 50, 0.0)];
        self::assertSame([], self::usual(Stem::Speech)->outside(Series::of($powers), str_repeat("\1", 153)));
        self::assertSame([], self::usual(Stem::Speech)->outside(Series::of([]), ''));
    }

    public function testAZoneThatWasSetCounts(): void
    {
        $found = (new LevelZone(Stem::Music, new Zone(-40.0, -25.0)))->outside(Series::of([...self::at(-22.0, 30), ...self::at(-30.0, 30), ...self::at(-46.0, 20), ...self::at(-30.0, 30), ...self::at(-20.0, 20)]), '');
        self::assertEqualsWithDelta([3.0, -6.0, 5.0], array_column($found, 2), 0.05);
        $sums = LevelZone::sums($found);
        self::assertSame([true, false], array_column($sums, 'above'));
        self::assertEqualsWithDelta([50, 20], array_column($sums, 'tenths'), 12);
        self::assertEqualsWithDelta([5.0, 6.0], array_column($sums, 'worst'), 0.05, 'the farthest counts');
    }

    private static function usual(Stem $stem): LevelZone
    {
        return new LevelZone($stem, Zone::usual($stem));
    }

    /** @return list<float> power over both sides of a sound of that average level */
    private static function at(float $dbfs, int $tenths): array
    {
        return array_fill(0, $tenths, 2.0 * 10.0 ** (($dbfs + 0.691) / 10.0));
    }
}
