<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Timeline;

use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\InvalidMix;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Core\Timeline\UnknownItem;
use Wattage\Tests\support\Mixes;

/** What a mix can never be, however it came about. */
final class MixTest extends TestCase
{
    public function testItLastsToTheEndOfItsLastClip(): void
    {
        self::assertSame(0, Mix::empty()->length());
        self::assertSame(10 * Mixes::SECOND, Mixes::voiceOverBed()->length());
    }

    public function testAClipIsFoundWithItsTrack(): void
    {
        $mix = Mixes::voiceOverBed();
        self::assertSame('music', $mix->trackOf('bed')->id);
        self::assertTrue($mix->hasClip('voice'));
        self::assertFalse($mix->hasClip('gone'));
        $this->expectException(UnknownItem::class);
        $mix->clip('gone');
    }

    public function testAClipNeverReachesPastItsSourceNorBeforeIt(): void
    {
        $mix = Mixes::voiceOverBed();
        $clip = $mix->clip('bed');
        foreach ([[0, 1, 10 * Mixes::SECOND], [0, 0, 10 * Mixes::SECOND + 1]] as [$at, $in, $length]) {
            try {
                $mix->withClip(new Clip('bed', $clip->source, 'Bed', $at, $in, $length, $clip->gain, $clip->curve));
                self::fail('It was accepted.');
            } catch (InvalidMix $problem) {
                self::assertSame('length', $problem->field());
            }
        }
    }

    /** @param array{int, int, int} $place */
    #[DataProvider('places')]
    public function testAClipCannotStandBeforeTimeBegins(array $place, string $field): void
    {
        try {
            new Clip('c', 's', 'Clip', $place[0], $place[1], $place[2], Decibels::unchanged(), Curve::flat());
            self::fail('It was accepted.');
        } catch (InvalidMix $problem) {
            self::assertSame($field, $problem->field());
        }
    }

    /** @return iterable<string, array{array{int, int, int}, string}> */
    public static function places(): iterable
    {
        yield 'before the timeline' => [[-1, 0, 10], 'at'];
        yield 'before its source' => [[0, -1, 10], 'in'];
        yield 'without length' => [[0, 0, 0], 'length'];
    }

    public function testTracksKeepTheirOrderAndCanBePutElsewhere(): void
    {
        $mix = Mixes::voiceOverBed()->withTrack(Track::named('hum', 'Hum', Stem::Ambience));
        self::assertSame(['speech', 'music', 'hum'], array_keys($mix->tracks));
        self::assertSame(['hum', 'speech', 'music'], array_keys($mix->withTrackAt('hum', 0)->tracks));
        self::assertSame(['music', 'hum', 'speech'], array_keys($mix->withTrackAt('speech', 99)->tracks));
        self::assertSame(['speech', 'music', 'hum'], array_keys($mix->withTrack($mix->track('music')->withName('Bed'))->tracks), 'replacing moves nothing');
    }

    public function testClipAndTrackIdsAreUniqueAcrossTheMix(): void
    {
        $source = new Source('s', 'S', 100, 2, Decibels::unchanged());
        $clip = new Clip('c', 's', 'Clip', 0, 0, 100, Decibels::unchanged(), Curve::flat());
        $this->expectException(InvalidMix::class);
        Mix::of(48_000, FrameRate::F25, [$source], [Track::named('a', 'A', Stem::Music)->withClip($clip), Track::named('b', 'B', Stem::Music)->withClip($clip)]);
    }

    public function testTrimmingMovesNoSound(): void
    {
        $clip = Mixes::voiceOverBed()->clip('voice');
        $trimmed = $clip->trimmedTo(\Wattage\Core\Time\Span::of($clip->at + 500, $clip->at + 1000));
        self::assertSame($clip->toSource($clip->at + 700), $trimmed->toSource($clip->at + 700));
        self::assertSame([500, $clip->in + 500], [$trimmed->length, $trimmed->in]);
    }

    public function testTheLevelOfAClipIsItsGainAndItsCurve(): void
    {
        $mix = Mixes::edited(Mixes::voiceOverBed(), ['edit' => 'set-clip-gain', 'clips' => ['bed'], 'gain' => -4]);
        $mix = Mixes::edited($mix, ['edit' => 'add-keyframe', 'clip' => 'bed', 'at' => 1000, 'level' => -2]);
        self::assertSame(-6.0, $mix->clip('bed')->levelAt(1000)->db);
    }

    /** @param Closure(): mixed $make */
    #[DataProvider('impossible')]
    public function testWhatCannotBeIsNotMade(Closure $make): void
    {
        $this->expectException(Problem::class);
        $make();
    }

    /** @return iterable<string, array{Closure(): mixed}> */
    public static function impossible(): iterable
    {
        $source = static fn (int $length, int $channels, float $gain): Closure => static fn (): Source => new Source('s', 'S', $length, $channels, Decibels::of($gain));
        yield 'a source without sound' => [$source(0, 2, 0.0)];
        yield 'a source of three channels' => [$source(100, 3, 0.0)];
        yield 'a source louder than +24 dB' => [$source(100, 2, 25.0)];
        yield 'a fader above +12 dB' => [static fn (): Track => Track::named('t', 'T', Stem::Music)->withFader(Decibels::of(12.5))];
        yield 'a pan beyond the side' => [static fn (): Track => Track::named('t', 'T', Stem::Music)->withPan(1.5)];
        yield 'a pan that is no number' => [static fn (): Track => Track::named('t', 'T', Stem::Music)->withPan(\NAN)];
        yield 'an odd mix rate' => [static fn (): Mix => Mix::empty(44_100)];
        yield 'a track that is gone' => [static fn (): Mix => Mix::empty()->withoutTrack('t')];
        yield 'a clip without its source' => [static fn (): Mix => Mix::empty()->withTrack(Track::named('t', 'T', Stem::Music)->withClip(new Clip('c', 's', 'C', 0, 0, 1, Decibels::unchanged(), Curve::flat())))];
    }

    public function testThereIsALimitToHowManyTracksThereAre(): void
    {
        $mix = Mix::empty();
        for ($i = 0; $i < Mix::MAX_TRACKS; ++$i) {
            $mix = $mix->withTrack(Track::named("t{$i}", 'T', Stem::Music));
        }
        $this->expectExceptionMessage('at most 200 tracks');
        $mix->withTrack(Track::named('more', 'T', Stem::Music));
    }

    public function testNamesAreTrimmedAndKeptAsTheyAre(): void
    {
        self::assertSame('Ærø <b>', Name::check("  Ærø <b>\u{20}"));
        self::assertSame(str_repeat('ö', 200), Name::check(str_repeat('ö', 200)));
    }

    #[DataProvider('badIds')]
    public function testIdsThatPhpWouldTakeForNumbersAreRefused(string $id): void
    {
        $this->expectException(InvalidMix::class);
        Name::checkId($id);
    }

    /** @return iterable<array{string}> */
    public static function badIds(): iterable
    {
        yield ['12'];
        yield ['-7'];
        yield [''];
        yield ['a b'];
        yield ["a\n"];
        yield [str_repeat('a', 65)];
        yield ['../x'];
    }
}
