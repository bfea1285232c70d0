<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Edit\Source\LevelSource;
use Wattage\Core\Edit\Speech\Duck;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Talk;

/** Where edits just fit, or just not: what tools/mutate.php found that no other test would have noticed. */
final class EdgesTest extends TestCase
{
    private const S = Mixes::SECOND;

    public function testAStepOfDuckingSaysWhatItDoes(): void
    {
        $mix = Mixes::voiceOverBed()->withRule(Talk::rule());
        $name = Talk::rule()->name;
        self::assertSame(
            ["Duck: {$name}", "Remove rule {$name}", 'Bring ducking up to date'],
            array_map(static fn (Duck $duck): string => $duck->label($mix), [new Duck(Talk::rule(), null, []), new Duck(null, Talk::rule()->id, []), new Duck(null, null, [])]),
        );
    }

    public function testAPanPointStopsOneSampleFromItsNeighbours(): void
    {
        $mix = Mixes::voiceOverBed();
        foreach ([2, 4, 6] as $at) {
            $mix = Mixes::edited($mix, ['edit' => 'set-pan-point', 'track' => 'music', 'at' => $at * self::S, 'pan' => 0.5]);
        }
        $moved = static fn (int $at): int => Mixes::edited($mix, ['edit' => 'set-pan-point', 'track' => 'music', 'point' => 4 * self::S, 'at' => $at])->track('music')->lanes->pan->points[2][0];
        self::assertSame([2 * self::S + 1, 3 * self::S, 6 * self::S - 1], [$moved(0), $moved(3 * self::S), $moved(9 * self::S)]);
    }

    public function testARangeOfALaneBeginsWithItsFirstSampleAndEndsBeforeItsLast(): void
    {
        $mix = Mixes::voiceOverBed();
        foreach ([1, 2, 3, 4] as $at) {
            $mix = Mixes::edited($mix, ['edit' => 'add-keyframe', 'track' => 'music', 'lane' => 'level', 'at' => $at * self::S, 'level' => -$at]);
            $mix = Mixes::edited($mix, ['edit' => 'set-pan-point', 'track' => 'music', 'at' => $at * self::S, 'pan' => 0.1 * $at]);
        }
        $cleared = static fn (string $lane): Mix => Mixes::edited($mix, ['edit' => 'clear-lane', 'track' => 'music', 'lane' => $lane, 'from' => 2 * self::S, 'to' => 4 * self::S]);
        self::assertSame([self::S, 4 * self::S], array_column($cleared('level')->track('music')->lanes->level->keyframes, 'position'));
        self::assertSame([0, self::S, 4 * self::S], array_column($cleared('pan')->track('music')->lanes->pan->points, 0));
    }

    public function testWhatIsRemovedLeavesItsGapUnlessItIsToClose(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 3 * self::S]]]);
        $later = static fn (?bool $close): array => array_column(Mixes::edited($mix, array_filter(['edit' => 'remove-clips', 'clips' => ['bed'], 'close' => $close]))->track('music')->inOrder(), 'at');
        self::assertSame([[3 * self::S], [0]], [$later(null), $later(true)]);
    }

    public function testACrossingTakesHalfOfEachWhereBothHaveItAndTheRestOfTheOneThatHasMore(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 5 * self::S]]]);
        $second = $mix->track('music')->inOrder()[1]->id;
        self::assertSame([6 * self::S, 4 * self::S], self::crossing($mix, 'bed', $second, 2 * self::S));
        // Of its 5 s the second can give none before its start where it is laid from the first sample of its recording.
        $slipped = Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => $second, 'from' => 5 * self::S, 'to' => 9 * self::S]);
        $slipped = Mixes::edited($slipped, ['edit' => 'slip-clip', 'clip' => $second, 'later' => -5 * self::S]);
        self::assertSame(0, $slipped->clip($second)->in);
        self::assertSame([7 * self::S, 5 * self::S], self::crossing($slipped, 'bed', $second, 2 * self::S));
        // The first may not last as long as the second, and so gives one sample less than that.
        self::assertSame([9 * self::S - 1, 5 * self::S], self::crossing($slipped, 'bed', $second, 4 * self::S - 1));
        $this->expectException(InvalidEdit::class);
        self::crossing($slipped, 'bed', $second, 4 * self::S);
    }

    public function testASourceIsBroughtUpByAsMuchAsAClipMayBeAndNoMore(): void
    {
        $mix = Mixes::voiceOverBed();
        $level = static fn (float $average): Mix => (new LevelSource($mix->source('src-bed'), $average, -20.0))->apply($mix);
        self::assertSame(24.0, $level(-44.0)->source('src-bed')->gain->db);
        $this->expectException(InvalidEdit::class);
        $level(-44.01);
    }

    public function testAChannelSaysWhatBecomesOfIt(): void
    {
        $mix = Mixes::voiceOverBed();
        $label = static fn (array $edit): string => (new EditReader($mix, Mixes::sources()))->read(['edit' => 'set-channel', 'clip' => 'bed', 'channel' => 'left', ...$edit])->label($mix);
        self::assertSame(['Set Slow accordion, left to −6.0 dB', 'Mute Slow accordion, left', 'Unmute Slow accordion, left'], [$label(['gain' => -6]), $label(['muted' => true]), $label(['muted' => false])]);
    }

    public function testARefusedCrossingSaysHowMuchThereIsAndNeverLessThanNothing(): void
    {
        self::assertStringContainsString('0.00 s', InvalidEdit::noSoundForCrossing('a', 'b', -0.2)->getMessage());
        self::assertStringContainsString('1.25 s', InvalidEdit::noSoundForCrossing('a', 'b', 1.25)->getMessage());
    }

    public function testATrimThatMovesTheRestMovesWhatCrossesOverToo(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 5 * self::S]]]);
        $second = $mix->track('music')->inOrder()[1]->id;
        $mix = Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => 'bed', 'later' => $second, 'length' => 2 * self::S]);
        $trimmed = Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => self::S, 'to' => 5 * self::S, 'ripple' => true]);
        $clips = array_map(static fn (Clip $clip): array => [$clip->at, $clip->end()], $trimmed->track('music')->inOrder());
        self::assertSame([[0, 4 * self::S], [2 * self::S, 8 * self::S]], $clips, 'a second less at either end, and the crossing as long as it was');
    }

    public function testALevelMovedByNothingStaysTheSameMix(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 4 * self::S, 'to' => 6 * self::S, 'by' => -11, 'ramp' => 4800]);
        $edit = (new EditReader($mix, Mixes::sources()))->read(['edit' => 'move-keyframes', 'clip' => 'bed', 'keyframes' => [$mix->clip('bed')->curve->keyframes[0]->position], 'later' => 0, 'by' => 0]);
        self::assertSame($mix, $edit->apply($mix));
    }

    /** @return array{int, int} where the earlier ends and the later begins */
    private static function crossing(Mix $mix, string $earlier, string $later, int $length): array
    {
        $after = Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => $earlier, 'later' => $later, 'length' => $length]);

        return [$after->clip($earlier)->end(), $after->clip($later)->at];
    }
}
