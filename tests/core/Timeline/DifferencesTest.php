<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Timeline;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Differences;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Picture;
use Wattage\Core\Timeline\PictureStrip;
use Wattage\Core\Timeline\Source;
use Wattage\Tests\support\Mixes;

/** What changed between two states, in words; and which picture shows when. */
final class DifferencesTest extends TestCase
{
    private const S = Mixes::SECOND;

    public function testEveryKindOfChangeIsSaidInWords(): void
    {
        $before = Mixes::voiceOverBed();
        $after = $before;
        foreach ([
            ['edit' => 'set-source-gain', 'source' => 'src-bed', 'gain' => -2],
            ['edit' => 'set-fader', 'track' => 'music', 'fader' => -6],
            ['edit' => 'set-pan', 'track' => 'music', 'pan' => 0.25],
            ['edit' => 'set-muted', 'track' => 'speech', 'muted' => true],
            ['edit' => 'rename-track', 'track' => 'speech', 'name' => 'Voice'],
            ['edit' => 'add-track', 'track' => 'shore', 'name' => 'Shore', 'stem' => 'ambience'],
            ['edit' => 'move-clip', 'clip' => 'voice', 'track' => 'speech', 'at' => 3 * self::S],
            ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => -4],
            ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 4 * self::S, 'to' => 6 * self::S, 'by' => -11, 'ramp' => 4800],
            ['edit' => 'set-fade', 'clips' => ['bed'], 'edge' => 'in', 'length' => self::S],
            ['edit' => 'set-channels', 'clips' => ['bed'], 'mode' => 'mono'],
            ['edit' => 'duplicate-clips', 'clips' => ['bed']],
            ['edit' => 'add-marker', 'marker' => 'm', 'at' => 0, 'name' => 'Start'],
            ['edit' => 'set-aim', 'clearance' => 20, 'loudness' => -16],
            ['edit' => 'set-captions', 'text' => "WEBVTT\n\n00:01.000 --> 00:02.000\nA\n"],
        ] as $edit) {
            $after = Mixes::edited($after, $edit);
        }
        self::assertSame([
            'Source Slow accordion is at −2.0 dB instead of 0.0 dB (−2.0 dB).',
            'Track Narrator is called Voice.',
            'Voice is muted.',
            'The fader of Music is at −6.0 dB instead of 0.0 dB (−6.0 dB).',
            'Music is panned 25 % right instead of to the centre.',
            'Track Shore is new.',
            'Narrator is on Voice instead of Narrator.',
            'Narrator starts 0:03.000 instead of 0:02.000.',
            'Slow accordion at 0:00.000 is at −4.0 dB instead of 0.0 dB (−4.0 dB).',
            'The curve of Slow accordion at 0:00.000 differs by up to −11.0 dB, at 0:04.000, with 4 keyframes instead of 0.',
            'Slow accordion at 0:00.000 fades in over 1.00 s instead of 0.00 s.',
            'Slow accordion at 0:00.000 takes the mono sum instead of both channels.',
            'Slow accordion at 0:10.000 on Music is new.',
            'Marker Start is new.',
            'The wanted clearance is 20 LU instead of 15.',
            'The loudness target is −16 LUFS instead of −23.',
            'Captions: 1 instead of 0.',
        ], Differences::between($before, $after));
        self::assertSame([], Differences::between($after, $after));
        self::assertContains('Track Shore is gone.', Differences::between($after, $before));
    }

    public function testThePictureOfAClipShowsWithItUntilItIsDetachedAndThenStandsByItself(): void
    {
        $film = new Source('film', 'Crossing', 10 * self::S, 2, Decibels::unchanged(), null, true);
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'add-clip', 'track' => 'speech', 'clip' => 'guide', 'source' => 'film', 'at' => 20 * self::S, 'in' => self::S, 'length' => 4 * self::S], ['film' => $film]);
        $places = static fn (Mix $m): array => array_map(static fn (Picture $p): array => [$p->at, $p->in, $p->length], PictureStrip::of($m));
        self::assertSame([[20 * self::S, self::S, 4 * self::S]], $places($mix));
        $mix = Mixes::edited($mix, ['edit' => 'detach-picture', 'clips' => ['guide']]);
        self::assertSame([[20 * self::S, self::S, 4 * self::S]], $places($mix));
        $alone = Mixes::edited($mix, ['edit' => 'remove-clips', 'clips' => ['guide']]);
        self::assertSame([[20 * self::S, self::S, 4 * self::S]], $places($alone), 'the picture stays without its sound');
        $picture = array_key_first($alone->pictures) ?? '';
        self::assertSame([[5 * self::S, self::S, 4 * self::S]], $places(Mixes::edited($alone, ['edit' => 'move-picture', 'picture' => $picture, 'at' => 5 * self::S])));
        self::assertSame([], $places(Mixes::edited($alone, ['edit' => 'remove-pictures', 'pictures' => [$picture]])));
        $back = Mixes::edited($mix, ['edit' => 'attach-picture', 'clips' => ['guide']]);
        self::assertSame([], $back->pictures);
        self::assertSame([[20 * self::S, self::S, 4 * self::S]], $places($back));
    }

    public function testOfSeveralPicturesTheOneThatStartedLastShows(): void
    {
        $film = new Source('film', 'Crossing', 10 * self::S, 2, Decibels::unchanged(), null, true);
        $mix = Mixes::voiceOverBed();
        foreach ([['speech', 'a', 20], ['music', 'b', 24]] as [$track, $id, $at]) {
            $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => $track, 'clip' => $id, 'source' => 'film', 'at' => $at * self::S, 'length' => (28 - $at) * self::S], ['film' => $film]);
        }
        self::assertSame([['a', 20, 0, 4], ['b', 24, 0, 4]], array_map(static fn (Picture $p): array => [$p->id, intdiv($p->at, self::S), intdiv($p->in, self::S), intdiv($p->length, self::S)], PictureStrip::of($mix)));
    }
}
