<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

final class EditTest extends TestCase
{
    private const S = Mixes::SECOND;

    /**
     * @param array<string, mixed> $edit
     * @param Closure(Mix): mixed $read
     */
    #[DataProvider('edits')]
    public function testAnEditChangesWhatItSaysAndTheMixBeforeStaysAsItWas(array $edit, string $label, Closure $read, mixed $expected): void
    {
        $before = self::mixWithDip();
        $written = MixDocument::encode($before);
        $made = (new EditReader($before, Mixes::sources()))->read($edit);
        self::assertSame($label, $made->label($before));
        $after = $made->apply($before);
        self::assertEquals($expected, $read($after));
        self::assertNotSame($before, $after);
        self::assertSame($written, MixDocument::encode($before));
        self::assertEquals($after, MixDocument::decode(MixDocument::encode($after)), 'saved and loaded it is the same');
    }

    /** @return iterable<string, array{array<string, mixed>, string, Closure(Mix): mixed, mixed}> */
    public static function edits(): iterable
    {
        $s = self::S;
        yield 'add-track' => [['edit' => 'add-track', 'track' => 't3', 'name' => ' Shore ', 'stem' => 'ambience'], 'Add track Shore', static fn (Mix $m): array => [array_key_last($m->tracks), $m->track('t3')->name], ['t3', 'Shore']];
        yield 'lay-cut' => [['edit' => 'lay-cut', 'name' => 'Reel 2', 'tracks' => [['track' => 'cut-0', 'name' => 'Dialogue', 'stem' => 'speech', 'clips' => [['clip' => 'cut-0-0', 'source' => 'src-voice', 'name' => 'Take 4', 'at' => $s, 'in' => $s, 'length' => 2 * $s, 'fadeIn' => 480]]]], 'markers' => [['marker' => 'cut-m0', 'at' => $s, 'name' => 'Scene 2']]], 'Lay the cut Reel 2, 1 clip', static fn (Mix $m): array => [$m->clip('cut-0-0')->span()->to, $m->clip('cut-0-0')->fadeIn->length, $m->trackOf('cut-0-0')->name, $m->marker('cut-m0')->name], [3 * $s, 480, 'Dialogue', 'Scene 2']];
        yield 'change-cut' => [['edit' => 'change-cut', 'name' => 'Reel 2b', 'cut' => 'new', 'tracks' => [['track' => 'cut-0', 'name' => 'Music', 'stem' => 'music', 'clips' => [['clip' => 'cut-0-0', 'source' => 'src-bed', 'name' => 'Bed', 'at' => $s, 'in' => 0, 'length' => 10 * $s]]]]], 'Bring in the changed cut Reel 2b', static fn (Mix $m): array => [$m->clip('bed')->at, $m->clip('bed')->cutPart?->cut, $m->clip('voice')->at], [$s, 'new', 3 * $s]];
        yield 'take-mix' => [['edit' => 'take-mix', 'name' => 'Ferry', 'mix' => MixDocument::toArray(Mix::empty())], 'Take the whole mix of Ferry', static fn (Mix $m): array => $m->tracks, []];
        yield 'remove-track' => [['edit' => 'remove-track', 'track' => 'music'], 'Remove track Music', static fn (Mix $m): array => array_keys($m->tracks), ['speech']];
        yield 'place-track' => [['edit' => 'place-track', 'track' => 'music', 'place' => 0], 'Move track Music', static fn (Mix $m): array => array_keys($m->tracks), ['music', 'speech']];
        yield 'rename-track' => [['edit' => 'rename-track', 'track' => 'music', 'name' => 'Bed'], 'Rename track Music to Bed', static fn (Mix $m): string => $m->track('music')->name, 'Bed'];
        yield 'set-stem' => [['edit' => 'set-stem', 'track' => 'music', 'stem' => 'effects'], 'Count Music as effects', static fn (Mix $m): string => $m->track('music')->stem->value, 'effects'];
        yield 'set-fader' => [['edit' => 'set-fader', 'track' => 'music', 'fader' => '50%'], 'Set Music to −6.0 dB', static fn (Mix $m): float => round($m->track('music')->fader->db, 2), -6.02];
        yield 'set-pan' => [['edit' => 'set-pan', 'track' => 'music', 'pan' => -0.5], 'Pan Music 50 % left', static fn (Mix $m): float => $m->track('music')->pan, -0.5];
        yield 'set-muted' => [['edit' => 'set-muted', 'track' => 'music', 'muted' => true], 'Mute Music', static fn (Mix $m): bool => $m->track('music')->muted, true];
        yield 'set-frame-rate' => [['edit' => 'set-frame-rate', 'frameRate' => '29.97df'], 'Count 29.97df frames per second', static fn (Mix $m): string => $m->frameRate->value, '29.97df'];
        yield 'set-source-gain' => [['edit' => 'set-source-gain', 'source' => 'src-bed', 'gain' => -8], 'Set source Slow accordion to −8.0 dB', static fn (Mix $m): float => $m->source('src-bed')->gain->db, -8.0];
        yield 'add-clip' => [['edit' => 'add-clip', 'track' => 'speech', 'clip' => 'again', 'source' => 'src-voice', 'at' => '0:20'], 'Place Narrator on Narrator', static fn (Mix $m): array => [$m->clip('again')->at, $m->clip('again')->length, $m->length()], [20 * $s, 10 * $s, 30 * $s]];
        yield 'remove-clips' => [['edit' => 'remove-clips', 'clips' => ['bed', 'voice']], 'Remove 2 clips', static fn (Mix $m): int => $m->length(), 0];
        yield 'move-clip' => [['edit' => 'move-clip', 'clip' => 'bed', 'track' => 'speech', 'at' => $s], 'Move Slow accordion to 0:01.000', static fn (Mix $m): array => [$m->trackOf('bed')->id, $m->clip('bed')->at], ['speech', $s]];
        yield 'trim-clip' => [['edit' => 'trim-clip', 'clip' => 'voice', 'from' => $s, 'to' => 4 * $s], 'Trim Narrator to 0:01.000–0:04.000', static fn (Mix $m): array => [$m->clip('voice')->at, $m->clip('voice')->in, $m->clip('voice')->length], [$s, 0, 3 * $s]];
        yield 'set-clip-gain' => [['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => '-inf'], 'Set Slow accordion to silence', static fn (Mix $m): bool => $m->clip('bed')->gain->isSilence(), true];
        yield 'change-clip-gain' => [['edit' => 'change-clip-gain', 'clips' => ['bed', 'voice'], 'by' => -1.5], 'Change 2 clips by −1.5 dB', static fn (Mix $m): array => [$m->clip('bed')->gain->db, $m->clip('voice')->gain->db], [-1.5, -1.5]];
        yield 'add-keyframe' => [['edit' => 'add-keyframe', 'clip' => 'voice', 'at' => 3 * $s, 'level' => -4], 'Add keyframe to Narrator at 0:03.000', static fn (Mix $m): array => [$m->clip('voice')->curve->keyframes[0]->position, $m->clip('voice')->levelAt(3 * $s)->db], [2 * $s, -4.0]];
        yield 'set-keyframe' => [['edit' => 'set-keyframe', 'clip' => 'bed', 'keyframe' => 4 * $s, 'at' => '0:04.5', 'level' => -20, 'ramp' => 'hold'], 'Set keyframe of Slow accordion at 0:04.500 to −20.0 dB', static fn (Mix $m): array => [$m->clip('bed')->curve->keyframes[1]->position, $m->clip('bed')->levelAt(5 * $s)->db], [4.5 * $s, -20.0]];
        yield 'move-keyframes' => [['edit' => 'move-keyframes', 'clip' => 'bed', 'keyframes' => [4 * $s, 6 * $s], 'later' => 100, 'by' => -2], 'Move 2 keyframes of Slow accordion', static fn (Mix $m): array => [$m->clip('bed')->curve->keyframes[1]->position, $m->clip('bed')->levelAt(5 * $s)->db], [4 * $s + 100, -13.0]];
        yield 'remove-keyframes' => [['edit' => 'remove-keyframes', 'clip' => 'bed', 'keyframes' => [4 * $s, 6 * $s]], 'Remove 2 keyframes of Slow accordion', static fn (Mix $m): array => [\count($m->clip('bed')->curve->keyframes), $m->clip('bed')->levelAt(5 * $s)->db], [2, 0.0]];
        yield 'dip-range' => [['edit' => 'dip-range', 'clips' => ['voice', 'bed'], 'from' => 4 * $s, 'to' => 6 * $s, 'by' => -1, 'ramp' => $s], 'Dip 2 clips by 1 dB, 0:04.000–0:06.000', static fn (Mix $m): array => [$m->clip('voice')->levelAt(5 * $s)->db, $m->clip('bed')->levelAt(5 * $s)->db], [-1.0, -12.0]];
    }

    /**
     * @param array<string, mixed> $edit
     * @param Closure(Mix): mixed $read
     */
    #[DataProvider('moreEdits')]
    public function testSoDoThoseOfLevelsClipsAndLayout(array $edit, string $label, Closure $read, mixed $expected): void
    {
        $this->testAnEditChangesWhatItSaysAndTheMixBeforeStaysAsItWas($edit, $label, $read, $expected);
    }

    /** @return iterable<string, array{array<string, mixed>, string, Closure(Mix): mixed, mixed}> */
    public static function moreEdits(): iterable
    {
        $s = self::S;
        $curve = static fn (Mix $m, string $clip = 'bed'): array => array_map(static fn ($k): array => [$k->position, round($k->level->db, 2)], $m->clip($clip)->curve->keyframes);
        $levels = static fn (array $at): Closure => static fn (Mix $m): array => array_map(static fn (int $t): float => round($m->clip('bed')->levelAt($t)->db, 2), $at);
        $bed = ['clips' => ['bed']];
        yield 'set-keyframes, levels' => [['edit' => 'set-keyframes', 'clip' => 'bed', 'keyframes' => [4 * $s, 6 * $s], 'level' => -20], 'Set 2 keyframes of Slow accordion to −20.0 dB', $levels([5 * $s, 9 * $s]), [-20.0, 0.0]];
        yield 'set-keyframes, ramps' => [['edit' => 'set-keyframes', 'chosen' => [['clip' => 'bed', 'keyframes' => [3 * $s]]], 'ramp' => ['kind' => 'smooth', 'easeOut' => 0.2, 'easeIn' => 0.7]], 'Set keyframe of Slow accordion to smooth ramps', static fn (Mix $m): array => [$m->clip('bed')->curve->keyframes[0]->ramp->easeOut, $m->clip('bed')->curve->keyframes[0]->ramp->easeIn], [0.2, 0.7]];
        yield 'copy-neighbour, previous' => [['edit' => 'copy-neighbour', 'clip' => 'bed', 'keyframes' => [4 * $s, 6 * $s], 'from' => 'previous'], 'Level 2 keyframes of Slow accordion with the previous one', $levels([5 * $s]), [0.0]];
        yield 'copy-neighbour, next' => [['edit' => 'copy-neighbour', 'clip' => 'bed', 'keyframes' => [3 * $s], 'from' => 'next'], 'Level keyframe of Slow accordion with the next one', $levels([$s]), [-11.0]];
        yield 'move-keyframes of several clips' => [['edit' => 'move-keyframes', 'chosen' => [['clip' => 'bed', 'keyframes' => [4 * $s]]], 'later' => 0, 'by' => -1], 'Lower keyframe of Slow accordion by 1 dB', $levels([4 * $s]), [-12.0]];
        yield 'set-range' => [['edit' => 'set-range', ...$bed, 'from' => 4 * $s, 'to' => 6 * $s, 'level' => '-20', 'ramp' => '0.5 s'], 'Set Slow accordion to −20.0 dB, 0:04.000–0:06.000', $levels([5 * $s, 3 * $s, 7 * $s]), [-20.0, 0.0, 0.0]];
        yield 'silence a range' => [['edit' => 'set-range', ...$bed, 'from' => 8 * $s, 'to' => 9 * $s, 'level' => 'silence', 'ramp' => 480], 'Silence Slow accordion, 0:08.000–0:09.000', static fn (Mix $m): array => [$m->clip('bed')->levelAt(8 * $s)->isSilence(), $m->clip('bed')->levelAt(8 * $s - 480)->db], [true, 0.0]];
        yield 'reset-range' => [['edit' => 'reset-range', ...$bed, 'from' => 4 * $s, 'to' => 6 * $s, 'ramp' => 4800], 'Reset Slow accordion, 0:04.000–0:06.000', $levels([5 * $s]), [0.0]];
        yield 'tame' => [['edit' => 'tame', 'notches' => [['clip' => 'bed', 'at' => 8 * $s, 'by' => -6.5, 'before' => 480, 'after' => 960]]], 'Tame a peak of Slow accordion by 6.5 dB', $levels([8 * $s, 8 * $s - 480, 8 * $s + 960, 8 * $s + 480]), [-6.5, 0.0, 0.0, -3.25]];
        yield 'reset-clips' => [['edit' => 'reset-clips', ...$bed, 'parts' => ['curve', 'gain']], 'Reset curve, gain of Slow accordion', $curve, []];
        yield 'set-fade' => [['edit' => 'set-fade', ...$bed, 'edge' => 'in', 'length' => '12 f', 'shape' => 's'], 'Fade in Slow accordion over 0.48 s, S', static fn (Mix $m): array => [$m->clip('bed')->fadeIn->length, $m->clip('bed')->fadeIn->shape->value], [23_040, 's']];
        yield 'multiply' => [['edit' => 'change-clip-gain', ...$bed, 'by' => '80%'], 'Change Slow accordion by −1.9 dB', static fn (Mix $m): float => round($m->clip('bed')->gain->db, 2), -1.94];
        yield 'paste-levels' => [['edit' => 'paste-levels', 'clips' => ['voice'], 'gain' => -3, 'curve' => [['at' => $s, 'level' => -2], ['at' => 30 * $s, 'level' => 0]], 'fadeOut' => ['length' => 4800, 'shape' => 'linear']], 'Paste levels to Narrator', static fn (Mix $m): array => [$m->clip('voice')->gain->db, \count($m->clip('voice')->curve->keyframes), $m->clip('voice')->curve->keyframes[0]->position, $m->clip('voice')->fadeOut->length], [-3.0, 2, 2 * $s, 4800]];
        yield 'set-channels' => [['edit' => 'set-channels', ...$bed, 'mode' => 'mono'], 'Take the mono sum of Slow accordion', static fn (Mix $m): string => $m->clip('bed')->channels->mode->value, 'mono'];
        yield 'open-channels' => [['edit' => 'open-channels', ...$bed, 'open' => true], 'Open the channels of Slow accordion', static fn (Mix $m): bool => $m->clip('bed')->channels->isOpen(), true];
        yield 'unlink a source' => [['edit' => 'link-source', 'source' => 'src-bed', 'linked' => false], 'Unlink the channels of source Slow accordion', static fn (Mix $m): ?float => $m->source('src-bed')->right?->db, 0.0];
        yield 'set-source-gains' => [['edit' => 'set-source-gains', 'gains' => [['source' => 'src-bed', 'gain' => -4], ['source' => 'src-voice', 'gain' => '50%']]], 'Set the gain of 2 sources', static fn (Mix $m): array => [$m->source('src-bed')->gain->db, round($m->source('src-voice')->gain->db, 2)], [-4.0, -6.02]];
        yield 'level-source' => [['edit' => 'level-source', 'source' => 'src-bed', 'average' => -26.3, 'target' => -20], 'Bring source Slow accordion to −20.0 dBFS on average', static fn (Mix $m): float => $m->source('src-bed')->gain->db, 6.3];
        yield 'remove and close' => [['edit' => 'remove-clips', ...$bed, 'close' => true], 'Remove Slow accordion and close the gap on Music only', static fn (Mix $m): int => \count($m->track('music')->clips), 0];
        yield 'remove-range' => [['edit' => 'remove-range', 'from' => 4 * $s, 'to' => 5 * $s, 'tracks' => ['music'], 'close' => true], 'Remove 0:04.000–0:05.000 and close the gap on Music only', static fn (Mix $m): array => array_map(static fn ($c): array => [$c->at, $c->in, $c->length], $m->track('music')->inOrder()), [[0, 0, 4 * $s], [4 * $s, 5 * $s, 5 * $s]]];
        yield 'insert-time' => [['edit' => 'insert-time', 'at' => 0, 'length' => '5 s'], 'Insert 5.00 s at 0:00.000', static fn (Mix $m): array => [$m->clip('bed')->at, $m->clip('voice')->at], [5 * $s, 7 * $s]];
        yield 'move-clips' => [['edit' => 'move-clips', 'clips' => ['bed', 'voice'], 'later' => $s], 'Move 2 clips later by 1.00 s', static fn (Mix $m): array => [$m->clip('bed')->at, $m->clip('voice')->at], [$s, 3 * $s]];
        yield 'trim with ripple' => [['edit' => 'trim-clip', 'clip' => 'voice', 'from' => 3 * $s, 'to' => 7 * $s, 'ripple' => true], 'Trim Narrator to 0:03.000–0:07.000, and what comes later on Narrator', static fn (Mix $m): array => [$m->clip('voice')->at, $m->clip('voice')->in, $m->clip('voice')->length], [2 * $s, 2 * $s, 4 * $s]];
        yield 'slip-clip' => [['edit' => 'slip-clip', 'clip' => 'voice', 'later' => $s], 'Slip Narrator by 1.00 s', static fn (Mix $m): array => [$m->clip('voice')->at, $m->clip('voice')->in], [2 * $s, 2 * $s]];
        yield 'split' => [['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 3 * $s], ['clip' => 'bed', 'at' => 6 * $s]]], 'Split Slow accordion at 0:03.000 and 0:06.000', static fn (Mix $m): array => array_map(static fn ($c): array => [$c->at, $c->in, $c->length], $m->track('music')->inOrder()), [[0, 0, 3 * $s], [3 * $s, 3 * $s, 3 * $s], [6 * $s, 6 * $s, 4 * $s]]];
        yield 'duplicate-clips' => [['edit' => 'duplicate-clips', ...$bed], 'Duplicate Slow accordion', static fn (Mix $m): array => array_map(static fn ($c): array => [$c->id, $c->at, \count($c->curve->keyframes)], $m->track('music')->inOrder()), [['bed', 0, 4], ['bed-n2', 10 * $s, 4]]];
        yield 'loop-clip' => [['edit' => 'loop-clip', 'clip' => 'bed', 'until' => 25 * $s, 'overlap' => '1 s'], 'Loop Slow accordion until 0:25.000', static fn (Mix $m): array => array_map(static fn ($c): array => [$c->at, $c->length], $m->track('music')->inOrder()), [[0, 10 * $s], [9 * $s, 10 * $s], [18 * $s, 7 * $s]]];
        yield 'rename-clip' => [['edit' => 'rename-clip', 'clip' => 'bed', 'name' => 'Bed <b>one</b>'], 'Rename clip Slow accordion to Bed <b>one</b>', static fn (Mix $m): string => $m->clip('bed')->name, 'Bed <b>one</b>'];
        yield 'set-locked' => [['edit' => 'set-locked', 'track' => 'music', 'locked' => true], 'Lock Music', static fn (Mix $m): bool => $m->track('music')->locked, true];
        yield 'set-hue' => [['edit' => 'set-hue', 'track' => 'music', 'hue' => 'plum'], 'Draw Music in plum', static fn (Mix $m): ?string => $m->track('music')->hue?->value, 'plum'];
        yield 'add-marker' => [['edit' => 'add-marker', 'marker' => 'm1', 'at' => '0:03', 'name' => 'Gangway'], 'Mark Gangway at 0:03.000', static fn (Mix $m): array => [$m->marker('m1')->at, $m->marker('m1')->name], [3 * $s, 'Gangway']];
    }

    /** @param array<string, mixed> $edit */
    #[DataProvider('emptyEdits')]
    public function testAnEditThatChangesNothingReturnsTheVerySameMix(array $edit): void
    {
        $mix = Mixes::voiceOverBed();
        self::assertSame($mix, Mixes::edited($mix, $edit));
    }

    /** @return iterable<array{array<string, mixed>}> */
    public static function emptyEdits(): iterable
    {
        yield [['edit' => 'set-fader', 'track' => 'music', 'fader' => 0]];
        yield [['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => '100%']];
        yield [['edit' => 'move-clip', 'clip' => 'bed', 'track' => 'music', 'at' => 0]];
        yield [['edit' => 'place-track', 'track' => 'music', 'place' => 9]];
        yield [['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 0, 'to' => 1000, 'by' => 0, 'ramp' => 10]];
        yield [['edit' => 'trim-clip', 'clip' => 'bed', 'from' => 0, 'to' => 10 * self::S]];
    }

    /** @param array<string, mixed> $edit */
    #[DataProvider('badEdits')]
    public function testAnEditThatMakesNoSenseIsRefusedAndNamesTheField(array $edit, string $field): void
    {
        $mix = self::mixWithDip();
        try {
            Mixes::edited($mix, $edit);
            self::fail('It was accepted.');
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field(), $problem->getMessage());
            self::assertMatchesRegularExpression('/[.?]$/', $problem->getMessage(), 'a whole sentence');
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function badEdits(): iterable
    {
        $s = self::S;
        $dip = ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => $s, 'to' => 2 * $s, 'by' => -6, 'ramp' => 480];
        yield 'unknown edit' => [['edit' => 'reverse-time'], 'edit'];
        yield 'no edit' => [[], 'edit'];
        yield 'gain is NAN' => [['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => \NAN], 'gain'];
        yield 'gain is infinite' => [['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => \INF], 'gain'];
        yield 'gain too high' => [['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => 24.5], 'gain'];
        yield 'gain is nonsense' => [['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => 'loud'], 'gain'];
        yield 'gain is missing' => [['edit' => 'set-clip-gain', 'clips' => ['bed']], 'gain'];
        yield 'no clips' => [['edit' => 'set-clip-gain', 'clips' => [], 'gain' => 0], 'clips'];
        yield 'clips are no list' => [['edit' => 'set-clip-gain', 'clips' => 'bed', 'gain' => 0], 'clips'];
        yield 'clip is gone' => [['edit' => 'set-clip-gain', 'clips' => ['gone'], 'gain' => 0], 'clip'];
        yield 'track is gone' => [['edit' => 'set-fader', 'track' => 'gone', 'fader' => 0], 'track'];
        yield 'fader too high' => [['edit' => 'set-fader', 'track' => 'music', 'fader' => 13], 'fader'];
        yield 'pan too far' => [['edit' => 'set-pan', 'track' => 'music', 'pan' => -1.01], 'pan'];
        yield 'reversed range' => [[...$dip, 'from' => 3 * $s], 'to'];
        yield 'empty range' => [[...$dip, 'to' => $s], 'to'];
        yield 'range beside the clip' => [[...$dip, 'from' => 20 * $s, 'to' => 21 * $s], 'from'];
        yield 'dip is NAN' => [[...$dip, 'by' => \NAN], 'by'];
        yield 'dip is endless' => [[...$dip, 'by' => -\INF], 'by'];
        yield 'lift too high' => [[...$dip, 'by' => 30], 'by'];
        yield 'negative ramp' => [[...$dip, 'ramp' => -1], 'ramp'];
        yield 'time is half a sample' => [[...$dip, 'from' => 0.5], 'from'];
        yield 'time is nonsense' => [[...$dip, 'from' => 'soon'], 'from'];
        yield 'negative time' => [['edit' => 'move-clip', 'clip' => 'bed', 'track' => 'music', 'at' => -1], 'at'];
        yield 'absurdly late' => [['edit' => 'move-clip', 'clip' => 'bed', 'track' => 'music', 'at' => 25 * 3600 * $s], 'at'];
        yield 'trim past the source' => [['edit' => 'trim-clip', 'clip' => 'voice', 'from' => 2 * $s, 'to' => 30 * $s], 'from'];
        yield 'unknown source' => [['edit' => 'add-clip', 'track' => 'music', 'clip' => 'new', 'source' => 'other', 'at' => 0], 'source'];
        yield 'clip id taken' => [['edit' => 'add-clip', 'track' => 'music', 'clip' => 'bed', 'source' => 'src-bed', 'at' => 0], 'clip'];
        yield 'id of digits' => [['edit' => 'add-track', 'track' => '42', 'name' => 'T', 'stem' => 'music'], 'track'];
        yield 'no name' => [['edit' => 'add-track', 'track' => 't9', 'name' => "  \t", 'stem' => 'music'], 'name'];
        yield 'name with control characters' => [['edit' => 'add-track', 'track' => 't9', 'name' => "a\x07b", 'stem' => 'music'], 'name'];
        yield 'name of 300 characters' => [['edit' => 'rename-track', 'track' => 'music', 'name' => str_repeat('x', 300)], 'name'];
        yield 'unknown stem' => [['edit' => 'set-stem', 'track' => 'music', 'stem' => 'noise'], 'stem'];
        yield 'keyframe is gone' => [['edit' => 'remove-keyframes', 'clip' => 'bed', 'keyframes' => [5]], 'keyframe'];
        yield 'keyframe outside the clip' => [['edit' => 'add-keyframe', 'clip' => 'voice', 'at' => 9 * $s], 'at'];
        yield 'keyframe onto another' => [['edit' => 'set-keyframe', 'clip' => 'bed', 'keyframe' => 4 * $s, 'at' => 6 * $s], 'at'];
        $bed = ['clips' => ['bed']];
        yield 'keyframe past its neighbour' => [['edit' => 'set-keyframe', 'clip' => 'bed', 'keyframe' => 4 * $s, 'at' => 8 * $s], 'at'];
        yield 'no keyframe before the first' => [['edit' => 'copy-neighbour', 'clip' => 'bed', 'keyframes' => [3 * $s], 'from' => 'previous'], 'keyframes'];
        yield 'copied from nowhere' => [['edit' => 'copy-neighbour', 'clip' => 'bed', 'keyframes' => [3 * $s], 'from' => 'above'], 'from'];
        yield 'range outside every clip' => [['edit' => 'set-range', ...$bed, 'from' => 20 * $s, 'to' => 21 * $s, 'level' => 0, 'ramp' => 0], 'from'];
        yield 'range set too high' => [['edit' => 'set-range', ...$bed, 'from' => $s, 'to' => 2 * $s, 'level' => 25, 'ramp' => 0], 'level'];
        yield 'ramp is no length' => [['edit' => 'reset-range', ...$bed, 'from' => $s, 'to' => 2 * $s, 'ramp' => 'short'], 'ramp'];
        yield 'a fade longer than its clip' => [['edit' => 'set-fade', ...$bed, 'edge' => 'in', 'length' => '11 s'], 'length'];
        yield 'a fade of unknown shape' => [['edit' => 'set-fade', ...$bed, 'edge' => 'in', 'length' => 10, 'shape' => 'wobbly'], 'shape'];
        yield 'a fade at no end' => [['edit' => 'set-fade', ...$bed, 'edge' => 'middle', 'length' => 10], 'edge'];
        yield 'a fade of minus one second' => [['edit' => 'set-fade', ...$bed, 'edge' => 'in', 'length' => '-1'], 'length'];
        yield 'a tamed peak outside the clip' => [['edit' => 'tame', 'notches' => [['clip' => 'voice', 'at' => 9 * $s, 'by' => -3, 'before' => 10, 'after' => 10]]], 'notches'];
        yield 'a notch that lifts' => [['edit' => 'tame', 'notches' => [['clip' => 'voice', 'at' => 3 * $s, 'by' => 3, 'before' => 10, 'after' => 10]]], 'notches[0].by'];
        yield 'split at an edge' => [['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 0]]], 'at'];
        yield 'split outside' => [['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 10 * $s]]], 'at'];
        yield 'join of two tracks' => [['edit' => 'join-clips', 'clips' => ['bed', 'voice']], 'clips'];
        yield 'join of one' => [['edit' => 'join-clips', ...$bed], 'clips'];
        yield 'a loop that ends before it starts' => [['edit' => 'loop-clip', 'clip' => 'bed', 'until' => 9 * $s], 'until'];
        yield 'a loop that never advances' => [['edit' => 'loop-clip', 'clip' => 'bed', 'until' => 99 * $s, 'overlap' => 10 * $s], 'overlap'];
        yield 'an endless loop' => [['edit' => 'loop-clip', 'clip' => 'bed', 'until' => 9_000_000 * $s], 'until'];
        yield 'no source gains' => [['edit' => 'set-source-gains', 'gains' => []], 'gains'];
        yield 'a source too quiet to level' => [['edit' => 'level-source', 'source' => 'src-bed', 'average' => -70, 'target' => -20], 'target'];
        yield 'slipped past the source' => [['edit' => 'slip-clip', 'clip' => 'voice', 'later' => 9 * $s], 'later'];
        yield 'moved before the start' => [['edit' => 'move-clips', ...$bed, 'later' => -1], 'at'];
        yield 'moved wholly over another' => [['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'music', 'at' => $s], 'at'];
        yield 'channels of a mono clip' => [['edit' => 'open-channels', 'clips' => ['voice'], 'open' => true], 'channels'];
        yield 'a channel that is not open' => [['edit' => 'set-channel', 'clip' => 'bed', 'channel' => 'left', 'gain' => 0], 'channel'];
        yield 'a channel of a linked source' => [['edit' => 'set-source-gain', 'source' => 'src-bed', 'channel' => 'left', 'gain' => 0], 'channel'];
        yield 'picture of a sound' => [['edit' => 'detach-picture', ...$bed], 'clips'];
        yield 'nothing to reset' => [['edit' => 'reset-clips', ...$bed, 'parts' => []], 'parts'];
        yield 'no such part' => [['edit' => 'reset-clips', ...$bed, 'parts' => ['name']], 'parts'];
        yield 'nothing pasted' => [['edit' => 'paste-levels', ...$bed], 'edit'];
        yield '10,001 keyframes at once' => [['edit' => 'remove-keyframes', 'clip' => 'bed', 'keyframes' => range(1, 10_001)], 'keyframes'];
        yield 'no marker' => [['edit' => 'set-marker', 'marker' => 'gone', 'name' => 'x'], 'marker'];
        yield 'marker with a name of 300 characters' => [['edit' => 'add-marker', 'marker' => 'm', 'at' => 0, 'name' => str_repeat('x', 300)], 'name'];
        yield 'unknown ink' => [['edit' => 'set-hue', 'track' => 'music', 'hue' => 'invisible'], 'hue'];
        yield 'unknown ramp' => [['edit' => 'set-keyframe', 'clip' => 'bed', 'keyframe' => 4 * $s, 'ramp' => ['kind' => 'bouncy']], 'ramp.kind'];
    }

    public function testKeyframesStopAtTheirNeighboursAndAtTheEndsOfTheClip(): void
    {
        $mix = self::mixWithDip();
        $moved = Mixes::edited($mix, ['edit' => 'move-keyframes', 'clip' => 'bed', 'keyframes' => [4 * self::S], 'later' => 9 * self::S, 'by' => 0]);
        self::assertSame(6 * self::S - 1, $moved->clip('bed')->curve->keyframes[1]->position);
        $all = array_map(static fn ($k): int => $k->position, $mix->clip('bed')->curve->keyframes);
        $moved = Mixes::edited($mix, ['edit' => 'move-keyframes', 'clip' => 'bed', 'keyframes' => $all, 'later' => -9 * self::S, 'by' => 0]);
        self::assertSame(0, $moved->clip('bed')->curve->keyframes[0]->position);
        self::assertSame($all[3] - $all[0], $moved->clip('bed')->curve->keyframes[3]->position, 'together they keep their distances');
    }

    public function testMovingAndTrimmingNeverShiftAKeyframeAgainstItsSound(): void
    {
        $mix = self::mixWithDip();
        $curve = $mix->clip('bed')->curve;
        $mix = Mixes::edited($mix, ['edit' => 'move-clip', 'clip' => 'bed', 'track' => 'music', 'at' => 12_345]);
        $mix = Mixes::edited($mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => 50_000, 'to' => 300_000]);
        self::assertSame($curve, $mix->clip('bed')->curve);
        self::assertSame(50_000 - 12_345, $mix->clip('bed')->in);
    }

    public static function mixWithDip(): Mix
    {
        return Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 4 * self::S, 'to' => 6 * self::S, 'by' => -11, 'ramp' => self::S]);
    }
}
