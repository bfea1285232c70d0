<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Cut;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Cut\CutClip;
use Wattage\Core\Cut\CutTrack;
use Wattage\Core\Cut\EdlReader;
use Wattage\Core\Cut\EdlWriter;
use Wattage\Core\Cut\InvalidCut;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** Lists written by hand in the form that CMX 3600 gave the trade [M]. */
final class EdlTest extends TestCase
{
    private const FRAME = 1920;

    public function testEventsAreReadWithTheirFilesTracksAndTimes(): void
    {
        $cut = EdlReader::read(<<<'EDL'
            TITLE: FERRY, CUT 3
            FCM: NON-DROP FRAME

            001  HOST01   AA/V  C        01:00:10:00 01:00:20:00 10:00:00:00 10:00:10:00
            * FROM CLIP NAME:  HOST ONE.WAV
            002  GUEST    A2    C        00:00:05:12 00:00:07:12 10:00:02:00 10:00:04:00
            * SOURCE FILE: D:\RUSHES\guest take 2.wav
            003  SHOT     V     C        00:00:00:00 00:00:10:00 10:00:10:00 10:00:20:00
            * LOC: 10:00:03:05 RED     Horn; keep
            EDL, 48_000, FrameRate::F25);
        self::assertSame('FERRY, CUT 3', $cut->name);
        $hour = 3600 * 48_000;
        self::assertEquals([
            new CutTrack('A1 and A2', [new CutClip('HOST ONE.WAV', 'HOST ONE.WAV', 0, $hour + 480_000, 480_000, hour: $hour)]),
            new CutTrack('A2', [new CutClip('guest take 2.wav', 'guest take 2.wav', 96_000, 137 * self::FRAME, 96_000)]),
        ], $cut->tracks);
        self::assertSame([[80 * self::FRAME, 'Horn; keep']], $cut->markers);
        self::assertSame(['Its programme begins at 10:00:00:00; that is where the timeline begins.'], $cut->left);
    }

    public function testADissolveIsAnOverlapAndToBlackAFade(): void
    {
        $cut = EdlReader::read(<<<'EDL'
            001  ONE      A     C        00:00:00:00 00:00:10:00 00:00:00:00 00:00:10:00
            * FROM CLIP NAME: one.wav
            002  ONE      A     C        00:00:10:00 00:00:10:00 00:00:10:00 00:00:10:00
            002  TWO      A     D    025 00:00:20:00 00:00:30:00 00:00:10:00 00:00:20:00
            * FROM CLIP NAME: one.wav
            * TO CLIP NAME: two.wav
            003  TWO      A     C        00:00:30:00 00:00:30:00 00:00:20:00 00:00:20:00
            003  BL       A     D    012 00:00:00:00 00:00:01:00 00:00:20:00 00:00:21:00
            EDL, 48_000, FrameRate::F25);
        self::assertEquals([
            new CutClip('one.wav', 'one.wav', 0, 0, 275 * self::FRAME),
            new CutClip('two.wav', 'two.wav', 250 * self::FRAME, 500 * self::FRAME, 262 * self::FRAME, fadeIn: 25 * self::FRAME, fadeOut: 12 * self::FRAME),
        ], $cut->tracks[0]->clips);
    }

    public function testDropFrameTimesAreRealTimes(): void
    {
        $list = "FCM: DROP FRAME\n001  R A C 00:00:00;00 00:01:00;02 00:09:59;29 00:10:59;29\n";
        [$clip] = EdlReader::read($list, 48_000, FrameRate::F2997Drop)->tracks[0]->clips;
        // 17,981 and 1,800 frames of 1001/30000 s: SMPTE ST 12-1.
        self::assertEqualsWithDelta(17_981 * 1.001 / 30 * 48_000, $clip->at, 1.0);
        self::assertEqualsWithDelta(1800 * 1.001 / 30 * 48_000, $clip->length, 1.5);
        self::assertSame($clip->at, EdlReader::read($list, 48_000, FrameRate::F2997)->tracks[0]->clips[0]->at, 'the list says how it counts');
    }

    public function testOtherSpeedsAreLeftOutAndSaid(): void
    {
        $cut = EdlReader::read("001 R1 A C 00:00:00:00 00:00:02:00 00:00:00:00 00:00:02:00\n001 R2 A C 00:00:00:00 00:00:02:00 00:00:02:00 00:00:04:00\nM2   R2       012.5                00:00:00:00\n", 48_000, FrameRate::F25);
        self::assertCount(1, $cut->tracks[0]->clips);
        self::assertSame(['“R2” runs at another speed, and was left out.'], $cut->left);
    }

    #[DataProvider('bad')]
    public function testBadListsAreRefusedWithASentence(string $list, string $said): void
    {
        $this->expectException(InvalidCut::class);
        $this->expectExceptionMessage($said);
        EdlReader::read($list, 48_000, FrameRate::F25);
    }

    /** @return iterable<string, array{string, string}> */
    public static function bad(): iterable
    {
        yield 'a frame that is not there' => ['001 R A C 00:00:00:25 00:00:02:00 00:00:00:00 00:00:02:00', '“00:00:00:25” in line 1 cannot be at 25 frames per second'];
        yield 'a minute of 61' => ["TITLE: x\n001 R A C 00:61:00:00 00:00:02:00 00:00:00:00 00:00:02:00", 'in line 2'];
        yield 'drop frame at 25' => ['FCM: DROP FRAME', 'Set the project’s frame rate to 29.97df'];
        yield 'no event' => ['TITLE: Nothing', 'no event'];
        yield 'pictures only' => ['001 R V C 00:00:00:00 00:00:02:00 00:00:00:00 00:00:02:00', 'no sound in this cut'];
    }

    public function testWhatIsWrittenIsReadAgainToTheFrame(): void
    {
        $f = self::FRAME;
        $track = Track::named('t', 'Voice', Stem::Speech);
        foreach ([[0, 50, 250], [240, 500, 100], [400, 0, 25]] as $i => [$at, $in, $length]) {
            $track = $track->withClip(new Clip("c{$i}", 's', "Clip {$i}", $at * $f, $in * $f, $length * $f, Decibels::of(-3.0), Curve::flat()));
        }
        $second = Track::named('u', 'Bed', Stem::Music)->withClip(new Clip('d', 's', 'Under all', 10 * $f, 0, 400 * $f, Decibels::unchanged(), Curve::flat()));
        $mix = Mix::of(48_000, FrameRate::F25, [new Source('s', 'Host', 2_000_000, 1, Decibels::unchanged())], [$track, $second], [new Marker('m', 20 * $f, 'Fog')]);
        $written = EdlWriter::write($mix, 'Ferry', ['s' => 'host one.wav']);
        $cut = EdlReader::read($written, 48_000, FrameRate::F25);
        self::assertSame(['A1', 'A2'], array_column($cut->tracks, 'name'), $written);
        self::assertSame([[0, 50, 250], [240, 500, 100], [400, 0, 25]], array_map(static fn (CutClip $c): array => [intdiv($c->at, $f), intdiv($c->in, $f), intdiv($c->length, $f)], $cut->tracks[0]->clips), $written);
        self::assertSame(['host one.wav', 10 * $f, 400 * $f], [$cut->tracks[1]->clips[0]->media, $cut->tracks[1]->clips[0]->at, $cut->tracks[1]->clips[0]->length]);
        self::assertSame([[20 * $f, 'Fog']], $cut->markers);
        self::assertMatchesRegularExpression('/^001  HOSTONE  A     C        00:00:02:00 00:00:11:15 01:00:00:00 01:00:09:15\r$/m', $written);
    }
}
