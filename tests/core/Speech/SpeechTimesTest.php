<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Speech;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Speech\Buried;
use Wattage\Core\Speech\ClearAll;
use Wattage\Core\Speech\SpeechTimes;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

/** When somebody speaks in a mix, and the dips that make room for it. */
final class SpeechTimesTest extends TestCase
{
    private const S = Mixes::SECOND;

    public function testOnlyWhatIsHeardOfASourceCountsWhereItStands(): void
    {
        // The voice begins at second 1 of its source, stands at second 2, and lasts 6 s.
        self::assertEquals([[2.0, 4.0], [6.0, 8.0]], self::times(Mixes::voiceOverBed()));
        $moved = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'speech', 'at' => 20 * self::S]);
        self::assertEquals([[20.0, 22.0], [24.0, 26.0]], self::times($moved));
    }

    public function testMutedSilentAndOtherTracksSayNothing(): void
    {
        foreach ([
            ['edit' => 'set-muted', 'track' => 'speech', 'muted' => true],
            ['edit' => 'set-fader', 'track' => 'speech', 'fader' => 'silence'],
            ['edit' => 'set-clip-gain', 'clips' => ['voice'], 'gain' => 'silence'],
            ['edit' => 'set-stem', 'track' => 'speech', 'stem' => 'ambience'],
        ] as $edit) {
            self::assertSame([], self::times(Mixes::edited(Mixes::voiceOverBed(), $edit)));
        }
    }

    public function testVoicesThatOverlapAreOneStretch(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'add-track', 'track' => 'second', 'name' => 'Deckhand', 'stem' => 'speech']);
        $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 'second', 'clip' => 'other', 'source' => 'src-voice', 'at' => 3 * self::S, 'in' => self::S, 'length' => 6 * self::S]);
        self::assertEquals([[2.0, 5.0], [6.0, 9.0]], self::times($mix));
    }

    public function testCaptionsKnowBetter(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-captions', 'text' => "WEBVTT\n\n00:01.000 --> 00:03.000\nA\n\n00:02.000 --> 00:04.500\nB\n"]);
        self::assertEquals([[1.0, 4.5]], self::times($mix));
    }

    public function testDipsAreDownBeforeTheSpeechAndJoinWhereTheirRampsWouldMeet(): void
    {
        $mix = Mixes::voiceOverBed();
        $buried = self::buried(...);
        $edit = ClearAll::edit($mix, [$buried(2.0, 3.0, -6.0), $buried(3.5, 4.0, -9.0), $buried(7.0, 8.0, -4.0)]);
        self::assertNotNull($edit);
        self::assertSame([
            ['clips' => ['bed'], 'from' => (int) (1.9 * self::S), 'to' => 196_800, 'by' => -9.0, 'ramp' => (int) (0.4 * self::S)],
            ['clips' => ['bed'], 'from' => (int) (6.9 * self::S), 'to' => (int) (8.1 * self::S), 'by' => -4.0, 'ramp' => (int) (0.4 * self::S)],
        ], $edit['dips']);
        self::assertSame(-9.0, round(Mixes::edited($mix, $edit)->clip('bed')->levelAt(3 * self::S)->db, 2));
        self::assertNull(ClearAll::edit($mix, [$buried(2.0, 3.0, null)]));
        self::assertNull(ClearAll::edit($mix, []));
        self::assertSame(0, ClearAll::edit($mix, [$buried(0.0, 1.0, -3.0)])['dips'][0]['from'] ?? null, 'there is no time before the start');
    }

    public function testALiftTakesTheClipsOfAllWhoSpeak(): void
    {
        $mix = Mixes::voiceOverBed();
        $stretch = new Buried(Span::of(3 * self::S, 4 * self::S), 3.0, 'music', [], null, 6.0);
        $edit = ClearAll::lift($mix, $stretch);
        self::assertNotNull($edit);
        self::assertSame(['voice'], $edit['clips']);
        self::assertEqualsWithDelta(6.0, Mixes::edited($mix, $edit)->clip('voice')->levelAt((int) (3.5 * self::S))->db, 0.01);
        $locked = Mixes::edited($mix, ['edit' => 'set-locked', 'track' => 'speech', 'locked' => true]);
        self::assertNull(ClearAll::lift($locked, $stretch));
        self::assertNull(ClearAll::lift($mix, new Buried($stretch->span, 3.0, null, [], null, null)));
    }

    /** @return list<array{float, float}> seconds */
    private static function times(Mix $mix): array
    {
        $activity = static fn (string $id): array => 'src-voice' === $id ? [Span::of(0, 3 * self::S), Span::of(5 * self::S, 9 * self::S)] : [Span::of(0, 10 * self::S)];

        return array_map(static fn (Span $s): array => [$s->from / self::S, $s->to / self::S], SpeechTimes::of($mix, $activity));
    }

    /** @param list<string> $tracks */
    private static function buried(float $from, float $to, ?float $dip, array $tracks = ['music']): Buried
    {
        return new Buried(Span::of((int) ($from * self::S), (int) ($to * self::S)), 3.0, 'music', $tracks, $dip, null);
    }
}
