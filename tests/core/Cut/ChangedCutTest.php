<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Cut;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Captions\Cue;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Cut\ChangedCut;
use Wattage\Core\Cut\Relaid;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Cut\ChangeCut;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\CutPart;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\MuteLane;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Core\Timeline\UnknownItem;

/**
 * The cut: a voice that speaks four times, and a place under it. Balanced here: a gain, a curve and a fade on each clip, a level lane that moves all
 * the time, captions, a marker, and music of one's own with a ducking lane.
 */
final class ChangedCutTest extends TestCase
{
    private const S = 48_000;

    /** Source, first second of its part, seconds, and where it stands. */
    private const CUT = ['Voice' => [['v', 0, 10, 0], ['v', 20, 8, 10], ['v', 40, 12, 18], ['v', 60, 10, 35]], 'Place' => [['p', 0, 45, 0]]];

    /**
     * @param non-empty-array<string, list<array{string, int, int, int}>> $changed
     * @param array<string, int> $counts of what the list says
     * @param array<string, ?float> $moments seconds at which the captions over the four clips are to be; null for gone
     */
    #[DataProvider('changes')]
    public function testEveryWordKeepsItsLevel(array $changed, array $counts, array $moments): void
    {
        $before = self::balanced();
        $relaid = self::relay($changed, $before);
        self::assertSame($counts, ['kept' => $relaid->kept, 'new' => \count($relaid->new), 'gone' => \count($relaid->gone), 'changed' => \count($relaid->changed)]);
        $captions = [];
        foreach ($relaid->mix->captions as $cue) {
            $captions[$cue->text] = $cue->span->from / self::S;
        }
        self::assertEquals(array_filter($moments, is_float(...)), $captions);
        self::assertLevelsKept($changed, $before, $relaid->mix);
    }

    /** @return iterable<string, array{non-empty-array<string, list<array{string, int, int, int}>>, array<string, int>, array<string, ?float>}> */
    public static function changes(): iterable
    {
        [$a, $b, $c, $d] = self::CUT['Voice'];
        $place = self::CUT['Place'];
        $list = static fn (int $kept, int $new = 0, int $gone = 0, int $changed = 0): array => ['kept' => $kept, 'new' => $new, 'gone' => $gone, 'changed' => $changed];
        $at = static fn (?float $a, ?float $b, ?float $c, ?float $d): array => ['a' => $a, 'b' => $b, 'c' => $c, 'd' => $d];
        $to = self::at(...);

        yield 'nothing' => [self::CUT, $list(5), $at(2.0, 12.0, 20.0, 37.0)];
        yield 'a new clip in front, and everything later' => [['Voice' => [['n', 0, 5, 0], $to($a, 5), $to($b, 15), $to($c, 23), $to($d, 40)], 'Place' => [['p', 0, 45, 5]]], $list(5, new: 1), $at(7.0, 17.0, 25.0, 42.0)];
        yield 'a clip taken out, and closed up' => [['Voice' => [$a, $to($c, 10), $to($d, 27)], 'Place' => $place], $list(4, gone: 1), $at(2.0, null, 12.0, 29.0)];
        yield 'a clip taken out, its place left empty' => [['Voice' => [$a, $c, $d], 'Place' => $place], $list(4, gone: 1), $at(2.0, 12.0, 20.0, 37.0)];
        yield 'a clip goes on for longer' => [['Voice' => [$a, ['v', 20, 11, 10], $to($c, 21), $to($d, 38)], 'Place' => $place], $list(5, changed: 1), $at(2.0, 12.0, 23.0, 40.0)];
        yield 'a clip begins later' => [['Voice' => [$a, $b, ['v', 43, 9, 18], $to($d, 32)], 'Place' => $place], $list(5, changed: 1), $at(2.0, 12.0, null, 34.0)];
        yield 'a clip is cut in two, with something between' => [['Voice' => [$a, $b, ['v', 40, 5, 18], ['n', 0, 4, 23], ['v', 45, 7, 27], $to($d, 39)], 'Place' => $place], $list(6, new: 1, changed: 2), $at(2.0, 12.0, 20.0, 41.0)];
        yield 'two clips change places' => [['Voice' => [$a, $to($c, 10), $to($b, 22), $d], 'Place' => $place], $list(5), $at(2.0, 24.0, 12.0, 37.0)];
        yield 'a cut is undone' => [['Voice' => [$a, ['v', 20, 32, 10], $to($d, 50)], 'Place' => $place], $list(4, changed: 1), $at(2.0, 12.0, 32.0, 52.0)];
        yield 'a clip goes to another track' => [['Voice' => [$a, $b, $d], 'Second voice' => [$c], 'Place' => $place], $list(5), $at(2.0, 12.0, 20.0, 37.0)];
        yield 'all is new' => [['Voice' => [['n', 0, 10, 0]], 'Place' => [['n', 10, 10, 0]]], $list(0, new: 2, gone: 5), $at(2.0, 12.0, 20.0, 37.0)];
        yield 'the end comes first' => [['Voice' => [$to($d, 0), $to($c, 10), $to($b, 30), $to($a, 40)], 'Place' => $place], $list(5), $at(42.0, 32.0, 12.0, 2.0)];
    }

    public function testWhatWasDoneToAClipHereStays(): void
    {
        $before = self::balanced();
        // Trimmed by a second in front, a cough cut out of it, and half a second later than in the cut; then the scene before it grows.
        $clip = $before->tracks['t-voice']->clips['k-0-2'];
        $first = $clip->trimmedTo(Span::of(19 * self::S, 22 * self::S))->movedTo(19 * self::S + 24_000);
        $second = $clip->trimmedTo(Span::of(23 * self::S, 30 * self::S))->movedTo(23 * self::S + 24_000)->called('split-off');
        $before = $before->withTrack($before->tracks['t-voice']->withoutClip($clip->id)->withClip($first, $second));
        [$a, $b, $c, $d] = self::CUT['Voice'];
        $after = self::relay(['Voice' => [$a, ['v', 20, 10, 10], [...\array_slice($c, 0, 3), 20], $d], 'Place' => self::CUT['Place']], $before)->mix;
        $found = array_map(static fn (string $id): array => [$after->clip($id)->at - 2 * self::S, $after->clip($id)->in, $after->clip($id)->length], ['k-0-2', 'split-off']);
        self::assertSame([[$first->at, $first->in, $first->length], [$second->at, $second->in, $second->length]], $found);
    }

    public function testWhatThePlaceMovesFromStaysWhereItWasPutHere(): void
    {
        $before = self::balanced();
        $clip = $before->clip('k-0-1');
        // On a track of its own here.
        $before = $before->withTrack($before->tracks['t-voice']->withoutClip('k-0-1'))->withTrack(Track::named('guest', 'Guest', Stem::Speech)->withClip($clip));
        [$a, $b, $c, $d] = self::CUT['Voice'];
        $after = self::relay(['Voice' => [$a, $c, $b, $d], 'Place' => self::CUT['Place']], $before)->mix;
        self::assertSame('guest', $after->trackOf('k-0-1')->id);
    }

    public function testAClipAtTheBeginningMayBeginEarlierInItsSource(): void
    {
        $mix = self::laid(['Voice' => [['v', 10, 5, 0]]]);
        $clip = self::relay(['Voice' => [['v', 4, 11, 0]]], $mix)->mix->clip('k-0-0');
        self::assertSame([0, 4 * self::S, 11 * self::S], [$clip->at, $clip->in, $clip->length]);
    }

    public function testWhatWouldLieUnderAnotherGoesBesideIt(): void
    {
        $mix = self::laid(['Voice' => [['v', 0, 10, 0], ['v', 40, 5, 30]]]);
        // Placed here, in the gap.
        $mix = $mix->withTrack($mix->track('t-voice')->withClip(new Clip('cough', 'n', 'Cough', 12 * self::S, 0, 2 * self::S, Decibels::of(-6.0), Curve::flat())));
        $after = Change::by(new ChangeCut('Longer', self::tracks(['Voice' => [['v', 0, 29, 0], ['v', 40, 5, 30]]], 'new'), $mix->sources, [], 'k'), $mix);
        self::assertSame('Voice, beside', $after->trackOf('cough')->name);
        self::assertSame(29 * self::S, $after->clip('k-0-0')->length);
    }

    public function testOfTheSameSoundAgainAndAgainTheRightOneGoes(): void
    {
        $jingle = static fn (int $at): array => ['v', 0, 2, $at];
        $mix = self::laid(['Voice' => array_map($jingle, [0, 10, 20, 30])]);
        foreach ([-1.0, -2.0, -3.0, -4.0] as $i => $gain) {
            $mix = $mix->withClip($mix->clip("k-0-{$i}")->withGain(Decibels::of($gain)));
        }
        $mix = $mix->withTrack($mix->track('t-voice')->withClip(new Clip('anchor', 'p', 'Anchor', 40 * self::S, 0, self::S, Decibels::unchanged(), Curve::flat(), cutPart: new CutPart('k', 'Voice', 'p', 40 * self::S, 0, self::S))));
        $after = self::relay(['Voice' => [...array_map($jingle, [0, 20, 30]), ['p', 0, 1, 40]]], $mix)->mix;
        self::assertSame([-1.0, -3.0, -4.0], array_map(static fn (Clip $clip): float => $clip->gain->db, \array_slice($after->track('t-voice')->inOrder(), 0, 3)));
    }

    public function testLanesGoAlongWithoutAJumpAndWithoutIdleKeyframes(): void
    {
        [$a, $b, $c, $d] = self::CUT['Voice'];
        $after = self::relay(['Voice' => [$a, [...\array_slice($c, 0, 3), 10], [...\array_slice($d, 0, 3), 27]], 'Place' => self::CUT['Place']], self::balanced())->mix;
        $lane = $after->track('t-voice')->lanes->level;
        for ($at = 480; $at < 40 * self::S; $at += 480) {
            self::assertLessThan(3.0, abs($lane->levelAt($at)->db - $lane->levelAt($at - 480)->db), "a step at {$at}");
        }
        self::assertLessThanOrEqual(14, \count($lane->keyframes));
        self::assertSame([[0, 0.5], [10 * self::S - 1, 0.5]], \array_slice($after->track('t-voice')->lanes->pan->points, 0, 2));
        self::assertSame([[29 * self::S, true], [30 * self::S, false]], $after->track('t-voice')->lanes->mute->switches);
    }

    public function testMarkersOfTheCutAreReplacedAndThoseSetHereMove(): void
    {
        $before = self::balanced()->withMarker(new Marker('k-m0', 3 * self::S, 'From the cut'));
        [$a, $b, $c, $d] = self::CUT['Voice'];
        $after = self::relay(['Voice' => [['n', 0, 5, 0], ...array_map(static fn (array $x): array => [$x[0], $x[1], $x[2], $x[3] + 5], [$a, $b, $c, $d])], 'Place' => [['p', 0, 45, 5]]], $before, [new Marker('new-m0', 9 * self::S, 'From the cut')])->mix;
        self::assertEquals(['new-m0' => 9 * self::S, 'own' => 41 * self::S], array_map(static fn (Marker $m): int => $m->at, $after->markers));
        self::assertSame(5 * self::S, $after->clip('own-music')->at, 'what was placed here goes with the programme');
    }

    public function testACutOfWhichThereIsNothing(): void
    {
        $this->expectException(UnknownItem::class);
        ChangedCut::lay(self::tracks(self::CUT, 'new'), [], [], 'another', self::balanced());
    }

    public function testClipsThatWereNeverLaidAreKnownByTheNamesOfTheirTracks(): void
    {
        $mix = self::laid(self::CUT);
        foreach ($mix->tracks as $track) {
            $mix = $mix->withTrack($track->withClip(...array_values(array_map(static fn (Clip $clip): Clip => $clip->withCutPart(null)->withGain(Decibels::of(-5.0)), $track->clips))));
        }
        $relaid = ChangedCut::lay(self::tracks(self::CUT, 'new'), $mix->sources, [], null, $mix);
        self::assertSame(5, $relaid->kept);
        self::assertSame(-5.0, $relaid->mix->clip('k-0-0')->gain->db);
    }

    public function testTwoThousandClipsAreMatchedInASecondAndNoneIsLost(): void
    {
        $rows = array_map(static fn (int $i): array => ['v', ($i * 7) % 50, 1, $i], range(0, 1999));
        $mix = self::laid(['Voice' => $rows]);
        unset($rows[5]);
        $begun = hrtime(true);
        $relaid = self::relay(['Voice' => array_values(array_map(static fn (array $r): array => [$r[0], $r[1], $r[2], $r[3] + 3], $rows))], $mix);
        self::assertSame([1999, 0, 1], [$relaid->kept, \count($relaid->new), \count($relaid->gone)]);
        self::assertSame(1999, \count($relaid->mix->track('t-voice')->clips));
        self::assertLessThan(20, (hrtime(true) - $begun) / 1e9, 'no more than linear with some order');
    }

    /** @param non-empty-array<string, list<array{string, int, int, int}>> $changed */
    private static function assertLevelsKept(array $changed, Mix $before, Mix $after): void
    {
        foreach ($changed as $name => $rows) {
            foreach ($rows as [$source, $in, $seconds, $at]) {
                for ($t = 0.25; $t < $seconds; $t += 0.5) {
                    $sample = (int) (($in + $t) * self::S);
                    $time = (int) (($at + $t) * self::S);
                    $now = self::levels($after, $source, $sample, $time);
                    self::assertNotNull($now, "{$source} {$sample} of {$name} does not sound at {$time}");
                    $was = self::levels($before, $source, $sample);
                    if (null !== $was) {
                        // A seam takes 10 ms, and what was longer there before holds its level.
                        self::assertEqualsWithDelta($was[0], $now[0], 1e-9, "clip level of {$source} at {$t} s of what stands at {$at} s");
                        self::assertEqualsWithDelta($was[1], $now[1], 1e-6, "lane over {$source} at {$t} s of what stands at {$at} s");
                    }
                }
            }
        }
    }

    /** @return ?array{float, float} level of the clip that plays this sample, and of the lane over it, dB */
    private static function levels(Mix $mix, string $source, int $sample, ?int $at = null): ?array
    {
        foreach ($mix->tracks as $track) {
            foreach ($track->clips as $clip) {
                $time = $clip->toTimeline($sample);
                if ($clip->source === $source && $sample >= $clip->in && $sample < $clip->in + $clip->length && (null === $at || $time === $at) && 'own-music' !== $clip->id) {
                    return [$clip->levelAt($time)->db, $track->lanes->level->levelAt($time)->db];
                }
            }
        }

        return null;
    }

    private static function balanced(): Mix
    {
        $mix = self::laid(self::CUT);
        foreach ($mix->track('t-voice')->inOrder() as $i => $clip) {
            $curve = Curve::of([new Keyframe($clip->in + self::S, Decibels::of(-1.0 * $i), Ramp::line()), new Keyframe($clip->in + 3 * self::S, Decibels::of(2.0), Ramp::line())]);
            $mix = $mix->withClip($clip->withGain(Decibels::of(-3.0 - $i))->withCurve($curve)->withFades(Fade::of(480), Fade::of(960)));
        }
        $level = Curve::of(array_map(static fn (int $second): Keyframe => new Keyframe($second * self::S, Decibels::of(-(float) ($second % 7)), Ramp::line()), range(0, 45, 5)));
        $mute = new MuteLane([[37 * self::S, true], [38 * self::S, false]]);
        $mix = $mix->withTrack($mix->track('t-voice')->withLanes(new Lanes($level, new PanLane([[0, 0.5], [12 * self::S, 0.5], [14 * self::S, -0.5]]), $mute)));
        $music = Track::named('music', 'Own music', Stem::Music)->withClip(new Clip('own-music', 'p', 'Own', 0, 0, 60 * self::S, Decibels::of(-6.0), Curve::flat()));
        $music = $music->withDucking(new Ducking(Curve::of([new Keyframe(10 * self::S, Decibels::of(0.0), Ramp::line()), new Keyframe(11 * self::S, Decibels::of(-9.0), Ramp::line())]), [Span::of(36 * self::S, 37 * self::S)]));
        $cue = static fn (int $second, string $text): Cue => new Cue(Span::of($second * self::S, $second * self::S + 24_000), $text);

        return $mix->withTrack($music)->withCaptions([$cue(2, 'a'), $cue(12, 'b'), $cue(20, 'c'), $cue(37, 'd')])->withMarker(new Marker('own', 36 * self::S, 'Here'));
    }

    /** @param non-empty-array<string, list<array{string, int, int, int}>> $cut */
    private static function laid(array $cut): Mix
    {
        $sources = array_map(static fn (string $id): Source => new Source($id, strtoupper($id), 200 * self::S, 1, Decibels::unchanged()), ['v', 'p', 'n']);

        return Mix::of(self::S, FrameRate::F25, $sources, self::tracks($cut, 'k'));
    }

    /**
     * @param non-empty-array<string, list<array{string, int, int, int}>> $cut
     *
     * @return non-empty-list<Track>
     */
    private static function tracks(array $cut, string $key): array
    {
        $tracks = [];
        foreach (array_keys($cut) as $t => $name) {
            $id = ('k' === $key ? 't-' : "{$key}-t-").strtolower(str_replace(' ', '-', $name));
            $track = Track::named($id, $name, 'Place' === $name ? Stem::Ambience : Stem::Speech);
            foreach ($cut[$name] as $c => [$source, $in, $length, $at]) {
                $clip = new Clip("{$key}-{$t}-{$c}", $source, "Clip {$c}", $at * self::S, $in * self::S, $length * self::S, Decibels::unchanged(), Curve::flat());
                $track = $track->withClip($clip->withCutPart(CutPart::ofClip($key, $name, $clip)));
            }
            $tracks[] = $track;
        }

        return $tracks;
    }

    /**
     * @param non-empty-array<string, list<array{string, int, int, int}>> $cut
     * @param list<Marker> $markers
     */
    private static function relay(array $cut, Mix $before, array $markers = []): Relaid
    {
        return ChangedCut::lay(self::tracks($cut, 'new'), $before->sources, $markers, 'k', $before);
    }

    /**
     * @param array{string, int, int, int} $clip
     *
     * @return array{string, int, int, int}
     */
    private static function at(array $clip, int $at): array
    {
        return [$clip[0], $clip[1], $clip[2], $at];
    }
}
