<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Ducking\Heard;
use Wattage\Core\Ducking\Listening;
use Wattage\Core\Ducking\Moment;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Problem;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\DuckRule;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Talk;

final class DuckerTest extends TestCase
{
    private const S = Talk::RATE;

    /** Made by the test, times known. The bed is measured in the sound that is rendered. */
    #[DataProvider('depths')]
    public function testTheRenderedBedIsDownByTheDepthJustInTimeAndBackAsAsked(float $depth): void
    {
        $talk = Talk::open();
        $ducked = $talk->ducker($talk->mix->withRule(Talk::rule(['depth' => $depth])))->applied();
        $levels = $talk->bed($ducked);
        $full = $talk->bed($talk->mix)[50];
        $at = static fn (float $seconds): float => $levels[(int) round($seconds * 100)] - $full;
        // The first two sentences are half a second apart, less than the bridge: one dip.
        foreach ([[2.0, 6.2], [9.0, 11.5], [15.0, 15.6], [19.0, 22.0]] as [$from, $to]) {
            self::assertEqualsWithDelta($depth, $at(($from + $to) / 2), 0.5);
            self::assertEqualsWithDelta($depth, $at($from - 0.08), 0.5, 'fully down before the speech starts');
            self::assertGreaterThan($depth + 0.3, $at($from - 0.2), 'and not much sooner');
            self::assertEqualsWithDelta(0.0, $at($from - 0.56), 0.2, 'full before it falls');
            // The activity has its own hang-over, so the end may be found a little late.
            $end = self::endFound($talk, $from);
            self::assertEqualsWithDelta($depth, $at($end + 0.27), 0.5, 'held');
            self::assertLessThan(-0.1, $at($end + 1.1));
            self::assertEqualsWithDelta(0.0, $at($end + 1.22), 0.1, 'back after hold and rise');
        }
        self::assertEqualsWithDelta(0.0, $at(27.0), 0.05, 'speech too quiet to be heard is not followed');
    }

    /** @return iterable<string, array{float}> */
    public static function depths(): iterable
    {
        yield 'gentle' => [-6.0];
        yield 'usual' => [-12.0];
        yield 'a bed that should vanish' => [-30.0];
    }

    public function testToAClearanceEachStretchIsAsDeepAsItNeedsAndNoDeeper(): void
    {
        $talk = Talk::open();
        $ducked = $talk->ducker($talk->mix->withRule(Talk::rule(['clearance' => 15])))->applied();
        $speech = (new Listening($talk->activity()))->spoken($ducked->rule('r'), $ducked);
        self::assertCount(5, $speech);
        $clearance = Clearance::of($ducked, MixFigures::of($ducked, $talk->tenths()), $speech, 15.0);
        $values = array_filter(array_map($clearance->at(...), range(0, intdiv($ducked->length(), 4800))), is_float(...));
        foreach ($speech as $span) {
            $within = array_filter($values, static fn (int $k): bool => $k * 4800 >= $span->from && ($k + 1) * 4800 <= $span->to, \ARRAY_FILTER_USE_KEY);
            self::assertEqualsWithDelta(15.0, min($within), 1.0);
        }
    }

    public function testWhatCannotBeReachedStopsAtTheLimitAndSaysSo(): void
    {
        $talk = Talk::open();
        $mix = $talk->mix->withRule(Talk::rule(['clearance' => 40, 'deepest' => -10]));
        $dips = $talk->ducker($mix)->dips($mix->rule('r'));
        self::assertNotEmpty($dips);
        foreach ($dips as $dip) {
            self::assertSame([-10.0, true], [$dip->depth, $dip->limited]);
        }
    }

    public function testSpeechThatIsClearAlreadyLowersNothing(): void
    {
        $talk = Talk::open();
        $soft = Mixes::edited($talk->mix, ['edit' => 'set-fader', 'track' => 'music', 'fader' => -50]);
        self::assertTrue($talk->ducker($soft->withRule(Talk::rule(['clearance' => 10])))->lanes()['music']->isFlat());
    }

    public function testWhatIsTooQuietIsListedAndCanBeAddedAndWhatIsFoundCanBeDropped(): void
    {
        $talk = Talk::open();
        $mix = $talk->mix->withRule(Talk::rule(['sensitivity' => 14]));
        $kinds = static fn (DuckRule $rule): array => array_map(static fn (Moment $m): array => [$m->heard, (int) round($m->span->from / self::S)], $talk->ducker($talk->mix->withRule($rule))->moments($rule));
        self::assertContains([Heard::TooQuiet, 26], $kinds($mix->rule('r')));
        $quiet = array_values(array_filter($talk->ducker($mix)->moments($mix->rule('r')), static fn (Moment $m): bool => Heard::TooQuiet === $m->heard))[0]->span;
        $added = Talk::rule(['sensitivity' => 14, 'added' => [['from' => $quiet->from, 'to' => $quiet->to]], 'dropped' => [['from' => 9 * self::S, 'to' => 10 * self::S]]]);
        self::assertContains([Heard::Added, 26], $kinds($added));
        self::assertContains([Heard::Dropped, 9], $kinds($added));
        $lane = $talk->ducker($talk->mix->withRule($added))->lanes()['music'];
        self::assertEqualsWithDelta(0.0, $lane->levelAt(10 * self::S)->db, 0.01);
        self::assertLessThan(-5.0, $lane->levelAt((int) (26.7 * self::S))->db);
    }

    public function testWhatIsTooQuietIsSoughtNoDeeperThanTheLeastSensitivity(): void
    {
        $mix = Talk::open()->mix;
        foreach ([[14.0, 8.0], [5.0, 3.0]] as [$sensitivity, $deepest]) {
            $asked = [];
            $listening = new Listening(static function (string $source, float $at) use (&$asked): array {
                $asked[] = $at;

                return [];
            });
            $listening->to(Talk::rule(['sensitivity' => $sensitivity]), $mix);
            self::assertSame([$sensitivity, $deepest], array_values(array_unique($asked)));
        }
    }

    public function testShortSoundsAreIgnoredAndPausesBridged(): void
    {
        $talk = Talk::open();
        $long = Talk::rule(['ignore' => 1.0]);
        $moments = $talk->ducker($talk->mix->withRule($long))->moments($long);
        self::assertContains(Heard::TooShort, array_map(static fn (Moment $m): Heard => $m->heard, $moments), 'the sentence of 0.6 s');
        $apart = Talk::rule(['bridge' => 0.0]);
        $bridged = Talk::rule(['bridge' => 5.0]);
        self::assertGreaterThan(\count(self::ducking($talk, $bridged)), \count(self::ducking($talk, $apart)));
    }

    public function testAnyTrackOrClipCanTriggerAndAClipCanBeLeftOut(): void
    {
        $talk = Talk::open();
        $byClip = Talk::rule(['clips' => ['voice']]);
        self::assertEquals(self::ducking($talk, Talk::rule()), self::ducking($talk, $byClip));
        self::assertSame([], self::ducking($talk, Talk::rule(['clips' => ['bed'], 'targets' => ['speech']]), $talk->mix), 'a steady tone is no speech');
        $left = Mixes::edited($talk->mix, ['edit' => 'set-part-in-ducking', 'clips' => ['voice'], 'triggers' => false]);
        self::assertSame([], self::ducking($talk, Talk::rule(), $left));
        $spared = Mixes::edited($talk->mix, ['edit' => 'set-part-in-ducking', 'clips' => ['bed'], 'ducked' => false]);
        $levels = $talk->bed($talk->ducker($spared->withRule(Talk::rule()))->applied());
        self::assertEqualsWithDelta($levels[10], $levels[300], 0.01, 'a clip that does not give way');
        $muted = Mixes::edited($talk->mix, ['edit' => 'set-muted', 'track' => 'speech', 'muted' => true]);
        self::assertSame([], self::ducking($talk, Talk::rule(), $muted), 'nobody hears a muted trigger');
    }

    public function testAMomentCorrectedByHandGoesWithItsSpeech(): void
    {
        $talk = Talk::open();
        $ducked = $talk->ducker($talk->mix->withRule(Talk::rule()))->applied();
        $corrected = Mixes::edited($ducked, ['edit' => 'dip-range', 'track' => 'music', 'lane' => 'ducking', 'from' => (int) (9.5 * self::S), 'to' => (int) (10.5 * self::S), 'by' => 5, 'ramp' => 4800]);
        self::assertNotEmpty($corrected->track('music')->ducking->held);
        self::assertSame([], $talk->ducker($corrected)->outOfDate(), 'a correction does not make a lane outdated');
        $moved = Mixes::edited($corrected, ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'speech', 'at' => 3 * self::S]);
        self::assertSame(['music'], $talk->ducker($moved)->outOfDate());
        $again = $talk->ducker($moved)->applied();
        $lane = $again->track('music')->ducking->curve;
        self::assertEqualsWithDelta(-7.0, $lane->levelAt(13 * self::S)->db, 0.01, 'the correction is with its words');
        self::assertEqualsWithDelta(0.0, $lane->levelAt(11 * self::S)->db, 0.01, 'and no longer where they were');
        self::assertEqualsWithDelta(-12.0, $lane->levelAt(6 * self::S)->db, 0.01, 'the first dip has moved along');
        self::assertEqualsWithDelta(0.0, $lane->levelAt((int) (3.5 * self::S))->db, 0.01);
        self::assertSame([], $talk->ducker($again)->outOfDate());
        self::assertEquals($again, MixDocument::decode(MixDocument::encode($again)));

        $released = Mixes::edited($again, ['edit' => 'release-held', 'track' => 'music']);
        self::assertSame(['music'], $talk->ducker($released)->outOfDate());
        self::assertEqualsWithDelta(0.0, $talk->ducker($released)->applied()->track('music')->ducking->curve->levelAt((int) (10.9 * self::S))->db, 0.01);
        // Cut out with its words, a correction is gone; where another clip plays them, it is there.
        $cut = Mixes::edited($corrected, ['edit' => 'trim-clip', 'clip' => 'voice', 'from' => 0, 'to' => 8 * self::S]);
        self::assertSame([], $talk->ducker($cut)->applied()->track('music')->ducking->held);
        $unmoved = $talk->ducker(Mixes::edited($corrected, ['edit' => 'move-clip', 'clip' => 'bed', 'track' => 'music', 'at' => self::S]))->applied();
        self::assertEquals($corrected->track('music')->ducking, $unmoved->track('music')->ducking);
    }

    public function testSpeechThatIsMutedToListenMakesNothingOutOfDate(): void
    {
        $talk = Talk::open();
        $ducked = $talk->ducker($talk->mix->withRule(Talk::rule()))->applied();
        $muted = Mixes::edited($ducked, ['edit' => 'set-muted', 'track' => 'speech', 'muted' => true]);
        self::assertSame([], $talk->ducker($muted)->outOfDate());
        $run = $talk->ducker($muted)->applied();
        self::assertTrue($run->track('music')->ducking->curve->isFlat(), 'run now, it hears nobody');
        self::assertSame([], $talk->ducker($run)->outOfDate());
        self::assertSame(['music'], $talk->ducker(Mixes::edited($run, ['edit' => 'set-muted', 'track' => 'speech', 'muted' => false]))->outOfDate());
    }

    public function testACorrectedDipKeepsItsRampsAndNothingFallsBetweenItAndTheRules(): void
    {
        $talk = Talk::open();
        $ducked = $talk->ducker($talk->mix->withRule(Talk::rule()))->applied();
        $before = $ducked->track('music')->ducking->curve;
        $bottom = array_values(array_filter($before->keyframes, static fn (Keyframe $k): bool => $k->level->db < -6.0 && $k->position > 8 * self::S && $k->position < 13 * self::S));
        self::assertCount(2, $bottom);
        $corrected = Mixes::edited($ducked, ['edit' => 'move-keyframes', 'chosen' => [['track' => 'music', 'lane' => 'ducking', 'keyframes' => array_column($bottom, 'position')]], 'later' => 0, 'by' => 9]);
        $again = $talk->ducker(Mixes::edited($corrected, ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'speech', 'at' => 3 * self::S]))->applied();
        [$drawn, $kept] = [$corrected->track('music')->ducking->curve, $again->track('music')->ducking->curve];
        for ($at = $bottom[0]->position - 19_200; $at <= $bottom[1]->position + 43_200; $at += 240) {
            self::assertEqualsWithDelta($drawn->levelAt($at)->db, $kept->levelAt($at + 3 * self::S)->db, 0.01);
        }
        // A keyframe that only goes along the level does not hold the quiet before it.
        $first = array_values(array_filter($before->keyframes, static fn (Keyframe $k): bool => $k->position > 8 * self::S))[0];
        $later = Mixes::edited($ducked, ['edit' => 'move-keyframes', 'chosen' => [['track' => 'music', 'lane' => 'ducking', 'keyframes' => [$first->position]]], 'later' => 4800, 'by' => 0]);
        [$held] = $later->track('music')->ducking->held;
        self::assertSame($first->position, $held->from);
        self::assertSame($bottom[0]->position + 1, $held->to);
    }

    public function testSeveralRulesShareALaneAndARuleThatGoesTakesItsDipsAlong(): void
    {
        $talk = Talk::open();
        $two = $talk->mix->withRule(Talk::rule(['depth' => -6]))->withRule(Talk::rule(['id' => 'deeper', 'depth' => -20, 'added' => [], 'ignore' => 2.0]));
        $lane = $talk->ducker($two)->lanes()['music'];
        self::assertEqualsWithDelta(-20.0, $lane->levelAt(3 * self::S)->db, 0.01, 'the deeper holds');
        self::assertEqualsWithDelta(-6.0, $lane->levelAt((int) (15.3 * self::S))->db, 0.01, 'which the other ignores');
        $none = $talk->ducker($talk->ducker($two)->applied()->withoutRule('deeper')->withoutRule('r'))->applied();
        self::assertTrue($none->track('music')->ducking->curve->isFlat());
    }

    public function testALaneTurnedIntoClipKeyframesOrTheLevelLaneSoundsTheSame(): void
    {
        $talk = Talk::open();
        $ducked = $talk->ducker($talk->mix->withRule(Talk::rule()))->applied();
        $levels = $talk->bed($ducked);
        foreach (['clips', 'level'] as $to) {
            $turned = Mixes::edited($ducked, ['edit' => 'convert-lane', 'track' => 'music', 'from' => 'ducking', 'to' => $to]);
            self::assertTrue($turned->track('music')->ducking->isEmpty());
            self::assertEqualsWithDelta($levels, $talk->bed($turned), 0.1);
        }
        $wired = Mixes::edited($ducked, ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 2 * self::S, 'to' => 5 * self::S, 'by' => -4, 'ramp' => 12_000]);
        $turned = Mixes::edited($wired, ['edit' => 'convert-lane', 'track' => 'music', 'from' => 'ducking', 'to' => 'clips']);
        self::assertEqualsWithDelta($talk->bed($wired), $talk->bed($turned), 0.1, 'on top of a curve that is there');
        $back = Mixes::edited($turned, ['edit' => 'convert-lane', 'track' => 'music', 'from' => 'clips', 'to' => 'level']);
        self::assertTrue($back->clip('bed')->curve->isFlat());
        self::assertEqualsWithDelta($talk->bed($wired), $talk->bed($back), 0.1);
    }

    public function testNoSpeechAllSpeechAndTracksThatAreGone(): void
    {
        $talk = Talk::open();
        $rule = Talk::rule();
        $silent = Mixes::edited($talk->mix, ['edit' => 'remove-clips', 'clips' => ['voice']]);
        self::assertEquals(['music' => Curve::flat()], $talk->ducker($silent->withRule($rule))->lanes());
        $all = Talk::rule(['added' => [['from' => 0, 'to' => 30 * self::S]]]);
        $lane = $talk->ducker($talk->mix->withRule($all))->lanes()['music'];
        self::assertSame([-12.0, -12.0], [$lane->levelAt(0)->db, $lane->levelAt(29 * self::S)->db]);
        $gone = Mixes::edited($talk->mix->withRule($rule), ['edit' => 'remove-track', 'track' => 'music']);
        self::assertSame([], $talk->ducker($gone)->lanes());
        $deaf = Mixes::edited($talk->mix->withRule(Talk::rule(['triggers' => ['speech']])), ['edit' => 'remove-track', 'track' => 'speech']);
        self::assertEquals(['music' => Curve::flat()], $talk->ducker($deaf)->lanes());
    }

    public function testATargetShorterThanARampIsSimplyDown(): void
    {
        $talk = Talk::open();
        $mix = Mixes::edited($talk->mix, ['edit' => 'trim-clip', 'clip' => 'bed', 'from' => (int) (2.5 * self::S), 'to' => (int) (2.6 * self::S)]);
        $levels = $talk->bed($talk->ducker($mix->withRule(Talk::rule()))->applied());
        self::assertEqualsWithDelta(-12.0 - 23.0, $levels[255], 0.5);
    }

    public function testTheUsualRuleIsMusicUnderAllSpeech(): void
    {
        $mix = Talk::open()->mix;
        $rule = DuckRule::usual($mix);
        self::assertSame([['speech'], ['music'], -12.0], [$rule->tracksHeard($mix), $rule->targetsIn($mix), $rule->depth]);
        self::assertSame(Stem::Music, $mix->track('music')->stem);
    }

    /** @param array<string, mixed> $rule */
    #[DataProvider('mistakes')]
    public function testNonsenseIsRefusedWithItsField(array $rule, string $field): void
    {
        try {
            Mixes::edited(Talk::open()->mix, ['edit' => 'duck', 'rule' => ['id' => 'r', 'name' => 'R', 'targets' => ['music'], ...$rule], 'lanes' => []]);
            self::fail('It was taken.');
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function mistakes(): iterable
    {
        yield 'a rule that ducks itself' => [['triggers' => ['music']], 'targets'];
        yield 'nobody gives way' => [['targets' => []], 'targets'];
        yield 'a lift' => [['depth' => 3], 'rule.depth'];
        yield 'a lead of an hour' => [['lead' => 3600], 'rule.lead'];
        yield 'a fall of nothing' => [['fall' => 0], 'rule.fall'];
        yield 'a typing error' => [['triggres' => []], 'rule.triggres'];
        yield 'a stretch upside down' => [['added' => [['from' => 10, 'to' => 5]]], ''];
    }

    /** @return list<Span> */
    private static function ducking(Talk $talk, DuckRule $rule, ?Mix $mix = null): array
    {
        $mix = ($mix ?? $talk->mix)->withRule($rule);

        return array_values(array_map(static fn (Moment $m): Span => $m->span, array_filter($talk->ducker($mix)->moments($rule), static fn (Moment $m): bool => $m->heard->ducks())));
    }

    private static function endFound(Talk $talk, float $from): float
    {
        foreach (self::ducking($talk, Talk::rule()) as $span) {
            if (abs($span->from / self::S - $from) < 0.1) {
                return $span->to / self::S;
            }
        }
        self::fail("Nothing was found at {$from} s.");
    }
}
