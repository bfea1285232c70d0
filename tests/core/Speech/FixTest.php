<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Speech\Fix;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

/** Powers here are plain numbers: a dip of 10 dB makes a tenth of one. */
final class FixTest extends TestCase
{
    private const MARGIN = 0.3;

    public function testOneTrackIsLoweredAsFarAsTheWorstMomentNeeds(): void
    {
        $fix = new Fix(self::mix(), 10.0, [0 => 10.0, 1 => 10.0], ['music' => [0 => 1.0, 1 => 10.0], 'shore' => [0 => 0.0, 1 => 0.0]]);
        self::assertSame('music', $fix->covering());
        [$tracks, $dip] = $fix->dip();
        self::assertSame(['music'], $tracks);
        self::assertEqualsWithDelta(-10.0 - self::MARGIN, $dip, 1e-9);
        self::assertEqualsWithDelta(10.0 + self::MARGIN, $fix->lift(), 1e-9);
    }

    public function testTheNextTrackIsLoweredTooWhereTheFirstAloneDoesNot(): void
    {
        $fix = new Fix(self::mix(), 10.0, [0 => 10.0], ['music' => [0 => 5.0], 'shore' => [0 => 4.0], 'ropes' => [0 => 0.01]]);
        [$tracks, $dip] = $fix->dip();
        self::assertSame(['music', 'shore'], $tracks, 'the fewest that do, most first');
        // What may be left of 9.0: a tenth of the speech, less the margin and what is let alone.
        self::assertEqualsWithDelta(10.0 * log10((10.0 / 10 ** 1.03 - 0.01) / 9.0), $dip, 1e-9);
    }

    public function testWhatNoDipClearsHasNone(): void
    {
        $hopeless = new Fix(self::mix(), 20.0, [0 => 1e-6], ['music' => [0 => 1.0]]);
        self::assertSame([['music'], null], $hopeless->dip());
        self::assertNull($hopeless->lift(), 'nor is there a lift that would do');
        $silent = new Fix(self::mix(), 20.0, [0 => 0.0], ['music' => [0 => 1.0]]);
        self::assertNull($silent->dip()[1]);
        self::assertNull($silent->lift());
    }

    public function testLockedTracksAreNotAskedToGiveWay(): void
    {
        $locked = Mixes::edited(self::mix(), ['edit' => 'set-locked', 'track' => 'music', 'locked' => true]);
        $fix = new Fix($locked, 3.0, [0 => 10.0], ['music' => [0 => 2.0], 'shore' => [0 => 8.0]]);
        self::assertSame(['shore'], $fix->dip()[0]);
        $covered = new Fix($locked, 10.0, [0 => 10.0], ['music' => [0 => 9.0], 'shore' => [0 => 1.0]]);
        self::assertSame(['music', [['shore'], null]], [$covered->covering(), $covered->dip()]);
    }

    public function testWhereNothingCoversNothingIsNeeded(): void
    {
        $fix = new Fix(self::mix(), 10.0, [0 => 1.0], ['music' => [0 => 0.0]]);
        self::assertNull($fix->covering());
        self::assertSame([[], null], $fix->dip());
    }

    private static function mix(): Mix
    {
        $mix = Mixes::voiceOverBed();
        foreach (['shore' => 'ambience', 'ropes' => 'effects'] as $id => $stem) {
            $mix = Mixes::edited($mix, ['edit' => 'add-track', 'track' => $id, 'name' => ucfirst($id), 'stem' => $stem]);
        }

        return $mix;
    }
}
