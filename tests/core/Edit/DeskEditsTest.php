<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestDox;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Mixes;

/** Faders and lanes. Before each, music has a level lane from −6 at 1 s to −12 at 3 s, and speech a ducking lane. */
final class DeskEditsTest extends TestCase
{
    private const S = Mixes::SECOND;

    /**
     * @param array<string, mixed> $edit
     * @param Closure(Mix): mixed $seen
     */
    #[DataProvider('edits')]
    #[TestDox('$_dataName')]
    public function testTheyDoWhatTheySay(array $edit, string $label, Closure $seen, mixed $expected): void
    {
        $before = self::mix();
        $made = (new EditReader($before, Mixes::sources()))->read($edit);
        $after = Change::by($made, $before);
        self::assertSame($label, $made->label($before));
        self::assertEquals($expected, $seen($after));
        self::assertEquals($after, MixDocument::decode(MixDocument::encode($after)), 'it is stored whole');
        self::assertEquals(self::mix(), $before, 'undo leads back to just this');
        self::assertEquals($after, Change::by((new EditReader($after, Mixes::sources()))->read($edit), $after), 'made again it changes nothing');
    }

    /** @return iterable<string, array{array<string, mixed>, string, Closure(Mix): mixed, mixed}> */
    public static function edits(): iterable
    {
        $s = self::S;
        $levels = static fn (Mix $m): array => self::points($m->track('music')->lanes->level->keyframes);
        yield 'set-faders' => [['edit' => 'set-faders', 'faders' => [['track' => 'music', 'fader' => -3], ['track' => 'speech', 'fader' => '50%']]], 'Set 2 faders', static fn (Mix $m): array => [$m->track('music')->fader->db, round($m->track('speech')->fader->db, 2)], [-3.0, -6.02]];
        yield 'set-faders of one' => [['edit' => 'set-faders', 'faders' => [['track' => 'music', 'fader' => -3]]], 'Set Music to −3.0 dB', static fn (Mix $m): float => $m->track('music')->fader->db, -3.0];
        yield 'set-stem-fader' => [['edit' => 'set-stem-fader', 'stem' => 'music', 'fader' => 2], 'Set stem music to +2.0 dB', static fn (Mix $m): array => [$m->faders->of(Stem::Music)->db, $m->faders->of(Stem::Speech)->db], [2.0, 0.0]];
        yield 'set-programme-fader' => [['edit' => 'set-programme-fader', 'fader' => 'silence'], 'Set the programme to silence', static fn (Mix $m): bool => $m->faders->programme->isSilence(), true];
        yield 'set-lanes-off' => [['edit' => 'set-lanes-off', 'track' => 'music', 'off' => true], 'Do not follow the lanes of Music', static fn (Mix $m): bool => $m->track('music')->lanes->off, true];
        yield 'clear-lane' => [['edit' => 'clear-lane', 'track' => 'music', 'lane' => 'level'], 'Clear the level lane of Music', $levels, []];
        yield 'clear-lane over a range' => [['edit' => 'clear-lane', 'track' => 'music', 'lane' => 'level', 'from' => 2 * $s, 'to' => 4 * $s], 'Clear the level lane of Music, 0:02.000–0:04.000', $levels, [[$s, -6.0]]];
        yield 'clear-lane of ducking' => [['edit' => 'clear-lane', 'track' => 'speech', 'lane' => 'ducking'], 'Clear the ducking lane of Narrator', static fn (Mix $m): bool => $m->track('speech')->ducking->isEmpty(), true];
        yield 'copy-lane' => [['edit' => 'copy-lane', 'track' => 'music', 'lane' => 'level', 'to' => ['speech']], 'Copy the level lane of Music to Narrator', static fn (Mix $m): array => self::points($m->track('speech')->lanes->level->keyframes), [[$s, -6.0], [3 * $s, -12.0]]];
        yield 'release-held' => [['edit' => 'release-held', 'track' => 'speech'], 'Let go of corrections in the ducking of Narrator', static fn (Mix $m): array => $m->track('speech')->ducking->held, []];
        yield 'release-held elsewhere' => [['edit' => 'release-held', 'track' => 'speech', 'from' => 7 * $s, 'to' => 8 * $s], 'Let go of corrections in the ducking of Narrator', static fn (Mix $m): int => \count($m->track('speech')->ducking->held), 1];
        yield 'set-part-in-ducking' => [['edit' => 'set-part-in-ducking', 'clips' => ['voice', 'bed'], 'triggers' => false, 'ducked' => false], '2 clips ducks nothing, does not give way', static fn (Mix $m): array => [$m->clip('voice')->triggers, $m->clip('bed')->ducked], [false, false]];
        yield 'convert-lane into clips' => [
            ['edit' => 'convert-lane', 'track' => 'music', 'from' => 'level', 'to' => 'clips'],
            'Turn the level lane of Music into clip keyframes',
            static fn (Mix $m): array => [$levels($m), self::points($m->clip('bed')->curve->keyframes)],
            [[], [[$s, -6.0], [3 * $s, -12.0]]],
        ];
        $pan = static fn (Mix $m): array => $m->track('music')->lanes->pan->points;
        $mute = static fn (Mix $m): array => $m->track('music')->lanes->mute->switches;
        yield 'the first pan point: before it stands the pan of the track' => [['edit' => 'set-pan-point', 'track' => 'music', 'at' => 4 * $s, 'pan' => -0.5], 'Add pan point of Music at 0:04.000', $pan, [[0, 0.0], [4 * $s, -0.5]]];
        yield 'set-pan-range' => [['edit' => 'set-pan-range', 'track' => 'music', 'from' => 4 * $s, 'to' => 6 * $s, 'pan' => 0.4, 'ramp' => $s], 'Pan Music 40 % right, 0:04.000–0:06.000', $pan, [[0, 0.0], [3 * $s, 0.0], [4 * $s, 0.4], [6 * $s, 0.4], [7 * $s, 0.0]]];
        yield 'set-pan-range from the very start' => [['edit' => 'set-pan-range', 'track' => 'music', 'from' => 0, 'to' => $s, 'pan' => -1, 'ramp' => 0], 'Pan Music 100 % left, 0:00.000–0:01.000', $pan, [[0, -1.0], [$s, -1.0], [$s + 1, 0.0]]];
        yield 'set-mute-range' => [['edit' => 'set-mute-range', 'track' => 'music', 'from' => 4 * $s, 'to' => 6 * $s, 'muted' => true], 'Mute Music, 0:04.000–0:06.000', $mute, [[4 * $s, true], [6 * $s, false]]];
        yield 'set-mute-range where nothing is muted' => [['edit' => 'set-mute-range', 'track' => 'music', 'from' => 4 * $s, 'to' => 6 * $s, 'muted' => false], 'Let Music be heard, 0:04.000–0:06.000', $mute, []];
        yield 'remove-pan-points that are gone' => [['edit' => 'remove-pan-points', 'track' => 'music', 'points' => [$s]], 'Remove a pan point of Music', $pan, []];
        yield 'a keyframe of a lane' => [['edit' => 'set-keyframe', 'track' => 'music', 'lane' => 'level', 'keyframe' => $s, 'level' => -2], 'Set keyframe of the level lane of Music at 0:01.000 to −2.0 dB', $levels, [[$s, -2.0], [3 * $s, -12.0]]];
        yield 'a range of a lane' => [['edit' => 'set-range', 'track' => 'music', 'lane' => 'level', 'from' => 4 * $s, 'to' => 6 * $s, 'level' => -20, 'ramp' => 0], 'Set the level lane of Music to −20.0 dB, 0:04.000–0:06.000', static fn (Mix $m): array => [$m->track('music')->lanes->level->levelAt(5 * $s)->db, $m->track('music')->lanes->level->levelAt(7 * $s)->db], [-20.0, -12.0]];
        yield 'a nudge of a ducking lane is held, with the ramp that leads there' => [['edit' => 'set-keyframe', 'track' => 'speech', 'lane' => 'ducking', 'keyframe' => 9 * $s, 'level' => -3], 'Set keyframe of the ducking lane of Narrator at 0:09.000 to −3.0 dB', static fn (Mix $m): array => array_map(static fn ($h): array => [$h->from, $h->to], $m->track('speech')->ducking->held), [[2 * $s, 9 * $s + 1]]];
    }

    /** A ride of many keyframes over clips that were moved about: the clips get no more than they need, and sound the same. */
    public function testALaneTurnedIntoClipKeyframesMakesNoMoreThanItTakes(): void
    {
        $s = self::S;
        $mix = Mixes::voiceOverBed();
        $samples = array_map(static fn (int $i): array => [$i * 4800, -10.0 + 4.0 * sin($i / 9) + (90 === $i ? 3.0 : 0.0), 1], range(0, 110));
        $mix = Mixes::edited($mix, ['edit' => 'ride', 'passes' => [['track' => 'music', 'mode' => 'write', 'start' => 0, 'stop' => 11 * $s, 'level' => $samples]]]);
        $mix = Mixes::edited($mix, ['edit' => 'split', 'cuts' => [['clip' => 'bed', 'at' => 3 * $s], ['clip' => 'bed', 'at' => 7 * $s]]]);
        $lane = $mix->track('music')->lanes->level;
        $after = Mixes::edited($mix, ['edit' => 'convert-lane', 'track' => 'music', 'from' => 'level', 'to' => 'clips']);
        $clips = $after->track('music')->inOrder();
        self::assertGreaterThan(1, \count($clips));
        $count = array_sum(array_map(static fn ($clip): int => \count($clip->curve->keyframes), $clips));
        self::assertLessThanOrEqual(\count($lane->keyframes) + 2 * (\count($clips) - 1), $count);
        foreach ($clips as $clip) {
            for ($at = $clip->at; $at < $clip->end(); $at += 480) {
                self::assertEqualsWithDelta($lane->levelAt($at)->db, $clip->curve->levelAt($at - $clip->at + $clip->in)->db, 0.05);
            }
        }
    }

    public function testPanPointsMoveBetweenTheirNeighboursAndCanBeTakenOut(): void
    {
        $s = self::S;
        $mix = self::mix();
        foreach ([[2, -1.0], [4, 0.0], [6, 1.0]] as [$at, $pan]) {
            $mix = Mixes::edited($mix, ['edit' => 'set-pan-point', 'track' => 'music', 'at' => $at * $s, 'pan' => $pan]);
        }
        $points = static fn (Mix $m): array => $m->track('music')->lanes->pan->points;
        $between = Mixes::edited($mix, ['edit' => 'set-pan-point', 'track' => 'music', 'at' => 3 * $s]);
        self::assertContains([3 * $s, -0.5], $points($between), 'a point without a pan of its own changes nothing that is heard');
        $moved = Mixes::edited($mix, ['edit' => 'set-pan-point', 'track' => 'music', 'point' => 4 * $s, 'at' => 9 * $s, 'pan' => 0.2]);
        self::assertSame([[0, 0.0], [2 * $s, -1.0], [6 * $s - 1, 0.2], [6 * $s, 1.0]], $points($moved));
        $without = Mixes::edited($mix, ['edit' => 'remove-pan-points', 'track' => 'music', 'points' => [2 * $s, 6 * $s]]);
        self::assertSame([[0, 0.0], [4 * $s, 0.0]], $points($without));
    }

    public function testMutesOfRangesAddUpWithoutSwitchesThatChangeNothing(): void
    {
        $s = self::S;
        $mix = self::mix();
        $steps = [[[2, 8, true], [[2, true], [8, false]]], [[4, 5, false], [[2, true], [4, false], [5, true], [8, false]]], [[3, 6, true], [[2, true], [8, false]]], [[0, 5, false], [[5, true], [8, false]]], [[5, 9, false], []]];
        foreach ($steps as [[$from, $to, $muted], $expected]) {
            $mix = Mixes::edited($mix, ['edit' => 'set-mute-range', 'track' => 'music', 'from' => $from * $s, 'to' => $to * $s, 'muted' => $muted]);
            self::assertSame(array_map(static fn (array $e): array => [$e[0] * $s, $e[1]], $expected), $mix->track('music')->lanes->mute->switches);
        }
    }

    public function testDifferencesAreToldInWords(): void
    {
        $before = self::mix();
        $after = $before;
        foreach ([['edit' => 'set-stem-fader', 'stem' => 'music', 'fader' => -3], ['edit' => 'set-programme-fader', 'fader' => 1], ['edit' => 'clear-lane', 'track' => 'music', 'lane' => 'level'], ['edit' => 'clear-lane', 'track' => 'speech', 'lane' => 'ducking']] as $edit) {
            $after = Mixes::edited($after, $edit);
        }
        $said = \Wattage\Core\Timeline\Differences::between($before, $after);
        foreach (['Stem music is at −3.0 dB instead of 0.0 dB (−3.0 dB).', 'The programme is at +1.0 dB instead of 0.0 dB (+1.0 dB).', 'Music is ridden otherwise.', 'The ducking of Narrator is another.'] as $sentence) {
            self::assertContains($sentence, $said);
        }
    }

    /** @param array<string, mixed> $edit */
    #[DataProvider('mistakes')]
    #[TestDox('$_dataName')]
    public function testNonsenseIsRefusedWithItsField(array $edit, string $field): void
    {
        try {
            Mixes::edited(self::mix(), $edit);
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field());
            self::assertNotSame('', $problem->getMessage());

            return;
        }
        self::fail('It was taken.');
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function mistakes(): iterable
    {
        yield 'no faders' => [['edit' => 'set-faders', 'faders' => []], 'faders'];
        yield 'a fader too high' => [['edit' => 'set-faders', 'faders' => [['track' => 'music', 'fader' => 13]]], 'faders[0].fader'];
        yield 'a stem that is none' => [['edit' => 'set-stem-fader', 'stem' => 'wind', 'fader' => 0], 'stem'];
        yield 'a lane that is none' => [['edit' => 'clear-lane', 'track' => 'music', 'lane' => 'colour'], 'lane'];
        yield 'a lane of a track that is gone' => [['edit' => 'clear-lane', 'track' => 'gone', 'lane' => 'level'], 'track'];
        yield 'a level lane above the fader' => [['edit' => 'set-keyframe', 'track' => 'music', 'lane' => 'level', 'keyframe' => self::S, 'level' => 20], 'level'];
        yield 'a conversion into ducking' => [['edit' => 'convert-lane', 'track' => 'music', 'from' => 'level', 'to' => 'ducking'], 'to'];
        yield 'a pan point that is gone' => [['edit' => 'set-pan-point', 'track' => 'music', 'point' => 5, 'pan' => 0], 'point'];
        yield 'a pan beyond the side' => [['edit' => 'set-pan-point', 'track' => 'music', 'at' => 5, 'pan' => 1.5], 'pan'];
        yield 'a pan point with nothing to change' => [['edit' => 'set-pan-point', 'track' => 'music', 'point' => 5], 'edit'];
        yield 'a muted range that ends before it starts' => [['edit' => 'set-mute-range', 'track' => 'music', 'from' => 5, 'to' => 4, 'muted' => true], 'to'];
        yield 'a part in ducking of nothing' => [['edit' => 'set-part-in-ducking', 'clips' => ['bed']], 'edit'];
        yield 'a rule that is gone' => [['edit' => 'duck', 'without' => 'gone', 'lanes' => []], 'rule'];
    }

    private static function mix(): Mix
    {
        $mix = Mixes::voiceOverBed();
        foreach ([['music', 'level', 1, -6], ['music', 'level', 3, -12], ['speech', 'ducking', 2, -6], ['speech', 'ducking', 9, -6]] as [$track, $lane, $at, $level]) {
            $mix = Mixes::edited($mix, ['edit' => 'add-keyframe', 'track' => $track, 'lane' => $lane, 'at' => $at * self::S, 'level' => $level]);
        }
        $ducking = $mix->track('speech')->ducking;

        return $mix->withTrack($mix->track('speech')->withDucking(new \Wattage\Core\Timeline\Ducking($ducking->curve, [\Wattage\Core\Time\Span::of(2 * self::S, 2 * self::S + 1)])));
    }

    /**
     * @param list<Keyframe> $keyframes
     *
     * @return list<array{int, float}>
     */
    private static function points(array $keyframes): array
    {
        return array_map(static fn (Keyframe $k): array => [$k->position, $k->level->db], $keyframes);
    }
}
