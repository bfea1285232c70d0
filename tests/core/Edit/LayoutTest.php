<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\ChannelLevel;
use Wattage\Core\Timeline\ChannelMode;
use Wattage\Core\Timeline\Channels;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

/** Where clips stand, and that cutting, joining and moving them never changes what they sound like. */
final class LayoutTest extends TestCase
{
    private const S = Mixes::SECOND;
    private const FRAMES = 24_000;

    #[DataProvider('seeds')]
    public function testBothHalvesOfASplitClipSoundAsTheWholeDidAndJoinedAgainTheyAreIt(int $seed): void
    {
        $random = new Random($seed);
        $mix = self::randomMix($random);
        $clip = $mix->clip('c');
        $input = Sound::noise($seed, self::FRAMES * 4);
        $before = self::render($mix, $input);
        $cuts = [];
        for ($n = $random->int(1, 4); $n > 0; --$n) {
            $cuts[$random->int($clip->at + 1, $clip->end() - 1)] = true;
        }
        $split = Mixes::edited($mix, ['edit' => 'split', 'cuts' => array_map(static fn (int $at): array => ['clip' => 'c', 'at' => $at], array_keys($cuts))]);
        self::assertCount(\count($cuts) + 1, $split->track('t')->clips);
        // The points of a fade or a bend lie otherwise on the halves; both are within −100 dB of the ideal shape.
        self::assertLessThan(-94.0, Sound::residualDbfs($before, self::render($split, $input)));

        $joined = Mixes::edited($split, ['edit' => 'join-clips', 'clips' => array_keys($split->track('t')->clips)]);
        self::assertLessThan(-94.0, Sound::residualDbfs($before, self::render($joined, $input)));
        $again = array_values($joined->track('t')->clips)[0];
        self::assertEquals($clip->curve, $again->curve);
        self::assertSame([$clip->at, $clip->in, $clip->length], [$again->at, $again->in, $again->length]);
        self::assertSame([$clip->fadeIn->length, $clip->fadeOut->length], [$again->fadeIn->length, $again->fadeOut->length]);
    }

    #[DataProvider('seeds')]
    public function testClipsThatWereChangedAfterASplitSoundTheSameWhenTheyAreJoined(int $seed): void
    {
        $random = new Random($seed);
        $mix = Mixes::edited(self::randomMix($random), ['edit' => 'reset-clips', 'clips' => ['c'], 'parts' => ['fades']]);
        $clip = $mix->clip('c');
        $middle = intdiv($clip->at + $clip->end(), 2);
        $split = Mixes::edited($mix, ['edit' => 'split', 'cuts' => [['clip' => 'c', 'at' => $middle]]]);
        $split = Mixes::edited($split, ['edit' => 'change-clip-gain', 'clips' => ['c-n2'], 'by' => -4.5]);
        $split = Mixes::edited($split, ['edit' => 'dip-range', 'clips' => ['c'], 'from' => $middle - 3000, 'to' => $middle - 500, 'by' => -6, 'ramp' => 400]);
        $input = Sound::noise($seed, self::FRAMES * 4);
        $joined = Mixes::edited($split, ['edit' => 'join-clips', 'clips' => ['c', 'c-n2']]);
        self::assertCount(1, $joined->track('t')->clips);
        self::assertLessThan(-90.0, Sound::residualDbfs(self::render($split, $input), self::render($joined, $input)));
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 15; ++$seed) {
            yield [$seed];
        }
    }

    public function testOnlyWhatFitsTogetherIsJoined(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 4 * self::S]]]);
        $apart = Mixes::edited($mix, ['edit' => 'move-clips', 'clips' => ['bed-n2'], 'later' => 1]);
        $other = Mixes::edited($mix, ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'music', 'at' => 10 * self::S]);
        $silent = Mixes::edited($mix, ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => 'silence']);
        $mono = Mixes::edited($mix, ['edit' => 'set-channels', 'clips' => ['bed'], 'mode' => 'mono']);
        foreach ([[$apart, ['bed', 'bed-n2'], 'gap'], [$other, ['bed-n2', 'voice'], 'different sources'], [$silent, ['bed', 'bed-n2'], 'silent'], [$mono, ['bed', 'bed-n2'], 'channels']] as [$state, $clips, $word]) {
            try {
                Mixes::edited($state, ['edit' => 'join-clips', 'clips' => $clips]);
                self::fail("Joined in spite of: {$word}");
            } catch (InvalidEdit $problem) {
                self::assertStringContainsString($word, $problem->getMessage());
            }
        }
    }

    public function testTwoClipsCrossOverWhereBothReachIntoTheCutAndTheirSoundStaysWhereItIs(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 4 * self::S]]]);
        $mix = Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => 'bed', 'later' => 'bed-n2', 'length' => '2 s', 'shape' => 'linear']);
        [$a, $b] = [$mix->clip('bed'), $mix->clip('bed-n2')];
        self::assertSame([5 * self::S, 3 * self::S], [$a->end(), $b->at]);
        self::assertSame([$a->at - $a->in, 0], [$b->at - $b->in, $a->in]);
        $plain = Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => 'bed', 'later' => 'bed-n2', 'length' => 0]);
        self::assertSame($plain->clip('bed')->end(), $plain->clip('bed-n2')->at);
        foreach ([['length' => '30 s'], ['later' => 'voice', 'length' => 100], ['earlier' => 'bed-n2', 'later' => 'bed', 'length' => 100]] as $bad) {
            try {
                Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => 'bed', 'later' => 'bed-n2', ...$bad]);
                self::fail('It was accepted.');
            } catch (InvalidEdit $problem) {
                self::assertStringEndsWith('.', $problem->getMessage());
            }
        }
    }

    public function testASplitWithinACrossfadeIsRefused(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'music', 'at' => 8 * self::S]);
        Mixes::edited($mix, ['edit' => 'split', 'cuts' => [['clip' => 'voice', 'at' => 12 * self::S]]]);
        $this->expectException(InvalidEdit::class);
        $this->expectExceptionMessage('crossfade');
        Mixes::edited($mix, ['edit' => 'split', 'cuts' => [['clip' => 'voice', 'at' => 9 * self::S]]]);
    }

    public function testRemovingWithTheGapClosedMovesUpWhatComesLaterOnThatTrackOnly(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 2 * self::S], ['clip' => 'bed', 'at' => 5 * self::S]]]);
        $clips = array_column($mix->track('music')->inOrder(), 'id');
        $closed = Mixes::edited($mix, ['edit' => 'remove-clips', 'clips' => [$clips[1]], 'close' => true]);
        self::assertSame([[0, 2 * self::S], [2 * self::S, 7 * self::S]], array_map(static fn (Clip $c): array => [$c->at, $c->end()], $closed->track('music')->inOrder()));
        self::assertSame(2 * self::S, $closed->clip('voice')->at);
        $moved = Mixes::edited($mix, ['edit' => 'move-clips', 'clips' => [$clips[1]], 'later' => self::S, 'ripple' => true]);
        self::assertSame([0, 3 * self::S, 6 * self::S], array_column($moved->track('music')->inOrder(), 'at'));
    }

    public function testInsertedTimeCutsWhatSoundsThereMovesMarkersAndLeavesLockedTracksAlone(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'add-marker', 'marker' => 'm', 'at' => 5 * self::S, 'name' => 'Later']);
        $mix = Mixes::edited($mix, ['edit' => 'set-locked', 'track' => 'speech', 'locked' => true]);
        $after = Mixes::edited($mix, ['edit' => 'insert-time', 'at' => 4 * self::S, 'length' => self::S]);
        self::assertSame([[0, 4 * self::S], [5 * self::S, 11 * self::S]], array_map(static fn (Clip $c): array => [$c->at, $c->end()], $after->track('music')->inOrder()));
        self::assertSame(2 * self::S, $after->clip('voice')->at);
        self::assertSame(6 * self::S, $after->marker('m')->at);
        $back = Mixes::edited($after, ['edit' => 'remove-range', 'from' => 4 * self::S, 'to' => 5 * self::S, 'close' => true]);
        self::assertSame([0, 4 * self::S], array_column($back->track('music')->inOrder(), 'at'));
        self::assertSame(5 * self::S, $back->marker('m')->at);
    }

    public function testALockedTrackKeepsItsClipsAsTheyAre(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-locked', 'track' => 'music', 'locked' => true]);
        foreach ([
            ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => -1],
            ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'music', 'at' => 20 * self::S],
            ['edit' => 'dip-range', 'clips' => ['voice', 'bed'], 'from' => 3 * self::S, 'to' => 4 * self::S, 'by' => -1, 'ramp' => 0],
            ['edit' => 'remove-track', 'track' => 'music'],
        ] as $edit) {
            try {
                Mixes::edited($mix, $edit);
                self::fail("{$edit['edit']} was accepted.");
            } catch (InvalidEdit $problem) {
                self::assertStringContainsString('locked', $problem->getMessage());
            }
        }
        self::assertSame(-6.0, Mixes::edited($mix, ['edit' => 'set-fader', 'track' => 'music', 'fader' => -6])->track('music')->fader->db);
    }

    public function testOneLevelIsSpreadToManyClips(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-clip-gain', 'clips' => ['voice'], 'gain' => -4]);
        $mix = Mixes::edited($mix, ['edit' => 'loop-clip', 'clip' => 'bed', 'until' => 100 * self::S]);
        $beds = array_keys($mix->track('music')->clips);
        $after = Mixes::edited($mix, ['edit' => 'spread-level', 'clip' => 'voice', 'clips' => $beds]);
        self::assertSame(array_fill(0, 10, -4.0), array_map(static fn (string $id): float => $after->clip($id)->gain->db, $beds));
    }

    public function testAThousandKeyframesInManyClipsMoveAsOneAndStopTogether(): void
    {
        $mix = Mixes::voiceOverBed();
        $keyframes = array_map(static fn (int $i): array => ['at' => 400 * $i, 'level' => -1.0 * ($i % 7)], range(1, 600));
        $mix = Mixes::edited($mix, ['edit' => 'paste-levels', 'clips' => ['bed', 'voice'], 'curve' => $keyframes]);
        $chosen = array_map(static fn (string $id): array => ['clip' => $id, 'keyframes' => array_column($mix->clip($id)->curve->keyframes, 'position')], ['bed', 'voice']);
        $after = Mixes::edited($mix, ['edit' => 'move-keyframes', 'chosen' => $chosen, 'later' => -1000, 'by' => -2]);
        foreach (['bed', 'voice'] as $id) {
            $old = $mix->clip($id)->curve->keyframes[0];
            $new = $after->clip($id)->curve->keyframes[0];
            self::assertSame([$old->position - 400, $old->level->db - 2.0], [$new->position, $new->level->db], 'the first of the bed reaches the start of its clip, and none goes further');
        }
    }

    public function testTenThousandPastedKeyframesAreTakenAndMoreThanACurveHoldsAreNot(): void
    {
        $many = array_map(static fn (int $i): array => ['at' => 40 * $i, 'level' => -3.0], range(1, 10_000));
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'paste-levels', 'clips' => ['bed'], 'curve' => $many]);
        self::assertCount(10_000, $mix->clip('bed')->curve->keyframes);
        $this->expectExceptionMessage('at most 100000 keyframes');
        Mixes::edited($mix, ['edit' => 'paste-levels', 'clips' => ['bed'], 'curve' => array_map(static fn (int $i): array => ['at' => $i, 'level' => 0.0], range(1, 100_001))]);
    }

    private static function randomMix(Random $random): Mix
    {
        $at = $random->int(0, 5000);
        $length = $random->int(9000, self::FRAMES - 2000);
        $in = $random->int(0, 2000);
        $channels = 0 === $random->int(0, 2)
            ? Channels::opened(ChannelMode::Stereo, new ChannelLevel(Decibels::of(-2.0), $random->curve(self::FRAMES), false), ChannelLevel::usual())
            : Channels::usual();
        $shapes = FadeShape::cases();
        $clip = new Clip('c', 's', 'Clip', $at, $in, $length, Decibels::of(-3.0), $random->curve(self::FRAMES), Fade::of($random->int(0, 4000), $shapes[$random->int(0, 3)]), Fade::of($random->int(0, 4000), $shapes[$random->int(0, 3)]), $channels);

        return Mix::of(48_000, FrameRate::F25, [new Source('s', 'Source', self::FRAMES, 2, Decibels::unchanged())], [Track::named('t', 'T', Stem::Music)->withClip($clip)]);
    }

    /** @return list<float> */
    private static function render(Mix $mix, string $input): array
    {
        $all = [];
        foreach ((new Renderer($mix, ['s' => Sound::stream($input, 2, 16)]))->render(Span::of(0, $mix->length())) as $samples) {
            array_push($all, ...$samples);
        }

        return $all;
    }

    /** An end that goes further out, or an earlier beginning, moves what comes later by as much; what is before stays. */
    public function testATrimWithRippleMovesWhatComesLaterByWhatItLosesOrGains(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'add-clip', 'track' => 'speech', 'clip' => 'later', 'source' => 'src-voice', 'at' => 20 * self::S]);
        $later = static fn (float $from, float $to): int => Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'voice', 'from' => (int) ($from * self::S), 'to' => (int) ($to * self::S), 'ripple' => true])->clip('later')->at;
        // The clip is heard from 2 to 8 s; its source has a second before.
        self::assertSame(20 * self::S, $later(2.0, 8.0));
        self::assertSame(19 * self::S, $later(2.0, 7.0));
        self::assertSame(21 * self::S, $later(2.0, 9.0));
        self::assertSame(19 * self::S, $later(3.0, 8.0));
        self::assertSame(21 * self::S, $later(1.0, 8.0));
        self::assertSame((int) (20.5 * self::S), $later(1.0, 7.5));
    }

    /** Half of a crossing comes from each side, where both have it; else what is missing comes from the other. */
    public function testACrossingIsSharedByWhatSoundThereIs(): void
    {
        $s = self::S;
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'second', 'source' => 'src-bed', 'at' => 12 * $s, 'in' => 2 * $s, 'length' => 5 * $s]);
        $mix = Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => 4 * $s, 'to' => 12 * $s - 2 * $s]);
        $mix = Mixes::edited($mix, ['edit' => 'move-clip', 'clip' => 'second', 'track' => 'music', 'at' => 10 * $s]);
        $crossed = Mixes::edited($mix, ['edit' => 'cross-over', 'earlier' => 'bed', 'later' => 'second', 'length' => $s]);
        // The first has no sound after its end, so that all of it comes from before the second.
        self::assertSame([10 * $s, 9 * $s], [$crossed->clip('bed')->end(), $crossed->clip('second')->at]);
    }
}
