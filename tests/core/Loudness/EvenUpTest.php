<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\EvenUp;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

final class EvenUpTest extends TestCase
{
    public function testClipsComeToOneAverage(): void
    {
        $mix = self::mix();
        $rows = (new EvenUp(false, -20.0, -1.0))->of($mix, ['voice', 'bed'], self::tenths(...));
        foreach ($rows as ['clip' => $clip, 'gain' => $gain, 'after' => $after, 'limit' => $limit]) {
            self::assertNull($limit);
            self::assertEqualsWithDelta(-20.0, $after, 0.01);
            $mix = Mixes::edited($mix, ['edit' => 'set-clip-gains', 'gains' => [['clip' => $clip, 'gain' => $gain]]]);
        }
        foreach ((new EvenUp(false, -20.0, -1.0))->of($mix, ['voice', 'bed'], self::tenths(...)) as $row) {
            self::assertEqualsWithDelta(-20.0, $row['now'], 0.02, 'a mono and a stereo clip read alike');
            self::assertEqualsWithDelta(0.0, $row['by'], 0.02);
        }
    }

    public function testWithoutATargetEachStemHasItsOwn(): void
    {
        $rows = (new EvenUp(false, null, -1.0))->of(self::mix(), ['voice', 'bed'], self::tenths(...));
        self::assertSame([-20.0, -30.0], array_column($rows, 'target'));
    }

    public function testPeaksAndTheHighestGainEndItEarlyAndSaySo(): void
    {
        [$voice] = (new EvenUp(false, -3.0, -1.0))->of(self::mix(), ['voice'], self::tenths(...));
        self::assertSame('peak', $voice['limit']);
        self::assertEqualsWithDelta(20 * log10(1 / 0.5) - 1.0, $voice['by'], 0.05);
        $quiet = Mixes::edited(self::mix(), ['edit' => 'set-clip-gain', 'clips' => ['voice'], 'gain' => 20]);
        [$voice] = (new EvenUp(false, 0.0, 60.0))->of($quiet, ['voice'], self::tenths(...));
        self::assertSame('gain', $voice['limit']);
        self::assertEqualsWithDelta(24.0, $voice['gain'], 0.001);
    }

    /** What is heard counts: faders of track, stem and programme, lanes and ducking, whatever is muted meanwhile. */
    public function testItGoesByWhatIsHeard(): void
    {
        $s = Mixes::SECOND;
        $mix = self::mix();
        foreach ([
            ['edit' => 'set-fader', 'track' => 'speech', 'fader' => 6.9],
            ['edit' => 'set-stem-fader', 'stem' => 'speech', 'fader' => -2],
            ['edit' => 'set-programme-fader', 'fader' => -1],
            ['edit' => 'add-keyframe', 'track' => 'music', 'lane' => 'level', 'at' => 0, 'level' => -9],
            ['edit' => 'set-muted', 'track' => 'music', 'muted' => true],
        ] as $edit) {
            $mix = Mixes::edited($mix, $edit);
        }
        $rows = (new EvenUp(false, -20.0, 12.0))->of($mix, ['voice', 'bed'], self::tenths(...));
        $bare = (new EvenUp(false, -20.0, 12.0))->of(self::mix(), ['voice', 'bed'], self::tenths(...));
        self::assertEqualsWithDelta($bare[0]['by'] - 6.9 + 2 + 1, $rows[0]['by'], 0.02);
        self::assertEqualsWithDelta($bare[1]['by'] + 9 + 1, $rows[1]['by'], 0.02);
        $moved = Mixes::edited(self::mix(), ['edit' => 'dip-range', 'track' => 'speech', 'lane' => 'level', 'from' => 0, 'to' => 20 * $s, 'by' => -6, 'ramp' => 0]);
        self::assertEqualsWithDelta($bare[0]['by'] + 6, (new EvenUp(false, -20.0, 12.0))->of($moved, ['voice'], self::tenths(...))[0]['by'], 0.02);
    }

    public function testByPeak(): void
    {
        [$voice] = (new EvenUp(true, -12.0, -1.0))->of(self::mix(), ['voice'], self::tenths(...));
        self::assertEqualsWithDelta(-6.02, $voice['now'], 0.01);
        self::assertEqualsWithDelta(-5.98, $voice['by'], 0.01);
    }

    public function testSilentOrUnmeasuredClipsStay(): void
    {
        $silent = Mixes::edited(self::mix(), ['edit' => 'set-clip-gain', 'clips' => ['voice'], 'gain' => 'silence']);
        foreach ([[$silent, self::tenths(...)], [self::mix(), static fn (): ?SourceTenths => null]] as [$mix, $tenths]) {
            [$row] = (new EvenUp(false, -20.0, -1.0))->of($mix, ['voice'], $tenths);
            self::assertSame([null, null, null], [$row['gain'], $row['by'], $row['limit']]);
        }
    }

    private static function mix(): Mix
    {
        return Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => -7]);
    }

    private static function tenths(string $id): SourceTenths
    {
        return 'src-voice' === $id
            ? SourceTenths::fromBytes(pack('g*', ...array_fill(0, 100, 0.004), ...array_fill(0, 100, 0.5)), 1)
            : SourceTenths::fromBytes(pack('g*', ...array_fill(0, 200, 0.02), ...array_fill(0, 100, 0.7)), 2);
    }
}
