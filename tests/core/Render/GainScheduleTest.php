<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Render;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Stretch;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Timeline\Fades;
use Wattage\Tests\support\Mixes;

/** The one answer to “how loud is this now”, which renderer and player both follow. */
final class GainScheduleTest extends TestCase
{
    public function testSourceGainClipGainAndCurveAddUp(): void
    {
        $mix = Mixes::voiceOverBed();
        foreach ([
            ['edit' => 'set-source-gain', 'source' => 'src-bed', 'gain' => -2],
            ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => -4],
            ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 96_000, 'to' => 192_000, 'by' => -11, 'ramp' => 4800],
        ] as $edit) {
            $mix = Mixes::edited($mix, $edit);
        }
        $schedule = GainSchedule::parts($mix, $mix->clip('bed'), Fades::of($mix->track('music')))[0]->heard();
        $at = static function (int $position) use ($schedule): float {
            foreach ($schedule as $stretch) {
                if ($position >= $stretch->from && $position < $stretch->to) {
                    return 20 * log10($stretch->appliedGainAt($position));
                }
            }

            return \NAN;
        };
        self::assertEqualsWithDelta(-6.0, $at(0), 1e-9);
        self::assertEqualsWithDelta(-17.0, $at(150_000), 1e-9);
        self::assertEqualsWithDelta(-11.5, $at(96_000 - 2400), 0.01, 'half way down the ramp');
    }

    public function testItCoversTheHeardPartAndNoMoreThanItsOwnStretches(): void
    {
        $mix = Mixes::voiceOverBed();
        $schedule = GainSchedule::wire($mix->clip('voice'));
        self::assertSame([Mixes::SECOND, 7 * Mixes::SECOND], [$schedule[0]->from, $schedule[0]->to]);
    }

    public function testAMutedSourceIsSilentWhateverTheCurveSays(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-source-gain', 'source' => 'src-bed', 'gain' => 'silence']);
        $mix = Mixes::edited($mix, ['edit' => 'add-keyframe', 'clip' => 'bed', 'at' => 1000, 'level' => 12]);
        foreach (GainSchedule::parts($mix, $mix->clip('bed'), Fades::of($mix->track('music')))[0]->heard() as $stretch) {
            self::assertSame(0.0, $stretch->gainAt($stretch->from));
        }
    }

    public function testABentStretchIsStraightBetweenItsGridPointsAndExactOnThem(): void
    {
        $bent = Stretch::decibels(0, 48_000, 0.0, 0.0, -12.0);
        self::assertSame(96, $bent->grid);
        self::assertSame($bent->gainAt(96), $bent->appliedGainAt(96));
        self::assertEqualsWithDelta(($bent->gainAt(96) + $bent->gainAt(192)) / 2, $bent->appliedGainAt(144), 1e-15);
    }

    /** architecture.md: the points are so fine that straight lines between them stay below −100 dBFS of the ideal curve. */
    public function testHoweverSteepARampIsItsPointsAreFineEnough(): void
    {
        foreach ([[48_000, -6.0], [9600, -6.0], [4800, -12.0], [2400, -15.0], [1200, -24.0], [480, -12.0]] as [$length, $bend]) {
            $bent = Stretch::decibels(0, $length, 0.0, 0.0, $bend);
            for ($position = 0; $position < $length; ++$position) {
                self::assertEqualsWithDelta($bent->gainAt($position), $bent->appliedGainAt($position), 1e-5, "{$bend} dB in {$length} samples");
            }
        }
    }

    public function testRaisingAStretchRaisesItEverywhere(): void
    {
        foreach ([Stretch::decibels(0, 100, -3.0, -6.0, 2.0), Stretch::gain(0, 100, 0.0, 0.8), Stretch::decibels(0, 100, -\INF)] as $stretch) {
            $raised = $stretch->raised(Decibels::of(-6.0));
            self::assertEqualsWithDelta($stretch->gainAt(37) * 10 ** -0.3, $raised->gainAt(37), 1e-12);
            self::assertSame(0.0, $stretch->raised(Decibels::silence())->gainAt(37));
        }
    }
}
