<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Cut;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Cut\CutClip;
use Wattage\Core\Cut\InvalidCut;
use Wattage\Core\Cut\OtioReader;

/** Files written by hand to the published schema of OpenTimelineIO [M]. */
final class OtioReaderTest extends TestCase
{
    private const RATE = 48_000;

    public function testTracksClipsGapsAndWhereInTheFileTheyBegin(): void
    {
        $cut = OtioReader::read(self::timeline([
            self::track('Dialogue', [
                self::clip('Host', 'file:///media/rushes/host%20one.wav', 50, 100, known: 0),
                self::gap(25),
                // A file with a timecode of its own: 01:00:00:00.
                self::clip('Guest', '/media/guest.wav', 90_000 + 25, 75, known: 90_000),
            ]),
            self::track('Picture', [self::clip('Shot', 'shot.mov', 0, 200)], 'Video'),
            self::track('Bed', [self::clip('Theme', 'C:\\music\\theme.mp3', null, 200, known: 0)]),
        ]), self::RATE);
        self::assertSame(['Dialogue', 'Bed'], array_column($cut->tracks, 'name'));
        self::assertEquals([new CutClip('Host', 'host one.wav', 0, 96_000, 192_000), new CutClip('Guest', 'guest.wav', 240_000, 48_000, 144_000)], $cut->tracks[0]->clips);
        self::assertEquals([new CutClip('Theme', 'theme.mp3', 0, 0, 384_000)], $cut->tracks[1]->clips);
        self::assertSame([[], []], [$cut->left, $cut->markers]);
    }

    public function testATransitionIsAnOverlapAndBesideAGapAFade(): void
    {
        $transition = ['OTIO_SCHEMA' => 'Transition.1', 'transition_type' => 'SMPTE_Dissolve', 'in_offset' => self::time(10), 'out_offset' => self::time(15)];
        $cut = OtioReader::read(self::timeline([self::track('A', [self::clip('One', 'one.wav', 0, 100), $transition, self::clip('Two', 'two.wav', 50, 100), $transition, self::gap(50)])]), self::RATE);
        [$one, $two] = $cut->tracks[0]->clips;
        self::assertSame([0, 115 * 1920], [$one->at, $one->length]);
        self::assertSame([90 * 1920, 40 * 1920, 25 * 1920], [$two->at, $two->in, $two->fadeIn]);
        self::assertSame(200 * 1920 + 15 * 1920, $two->at + $two->length);
        self::assertSame(25 * 1920, $two->fadeOut);
    }

    public function testMarkersOfTimelineTrackAndClipStandWhereTheyWere(): void
    {
        $marker = static fn (string $name, float $at): array => ['OTIO_SCHEMA' => 'Marker.2', 'name' => $name, 'marked_range' => self::range($at, 0)];
        $clip = ['markers' => [$marker('In the clip', 75)]] + self::clip('One', 'one.wav', 50, 100);
        /** @var array{tracks: array<string, mixed>} $timeline */
        $timeline = json_decode(self::timeline([self::track('A', [self::gap(25), $clip])]), true);
        $timeline['tracks']['markers'] = [$marker('Of all', 10)];
        $cut = OtioReader::read((string) json_encode($timeline), self::RATE);
        self::assertSame([[19_200, 'Of all'], [96_000, 'In the clip']], $cut->markers);
    }

    public function testWhatCannotBeTakenOverIsSaid(): void
    {
        $slow = ['effects' => [['OTIO_SCHEMA' => 'LinearTimeWarp.1', 'time_scalar' => 0.5]]] + self::clip('Slow', 'slow.wav', 0, 50);
        $still = ['effects' => [['OTIO_SCHEMA' => 'FreezeFrame.1', 'time_scalar' => 0]]] + self::clip('Still', 'still.wav', 0, 50);
        $nested = ['OTIO_SCHEMA' => 'Stack.1', 'name' => 'Scene 3', 'children' => [], 'source_range' => self::range(0, 25)];
        $cut = OtioReader::read(self::timeline([self::track('A', [$slow, $still, $nested, self::clip('Fine', 'fine.wav', 0, 50)])]), self::RATE);
        self::assertSame(['“Slow” runs at another speed, and was left out.', '“Still” runs at another speed, and was left out.', '“Scene 3” is a timeline of its own, and was left out.'], $cut->left);
        self::assertSame(125 * 1920, $cut->tracks[0]->clips[0]->at, 'its place is kept');
    }

    public function testTimesAtOtherRatesAndOlderClips(): void
    {
        $old = ['OTIO_SCHEMA' => 'Clip.1', 'name' => 'Old', 'media_reference' => ['OTIO_SCHEMA' => 'ExternalReference.1', 'target_url' => 'old.wav'], 'source_range' => ['start_time' => ['value' => 44_100, 'rate' => 44_100], 'duration' => ['value' => 30, 'rate' => 30000 / 1001]]];
        [$clip] = OtioReader::read(self::timeline([self::track('A', [$old])]), self::RATE)->tracks[0]->clips;
        self::assertSame(['old.wav', 48_000, 48_048], [$clip->media, $clip->in, $clip->length]);
    }

    public function testTwoThousandClipsAreRead(): void
    {
        $clips = array_map(static fn (int $i): array => self::clip("Clip {$i}", "file{$i}.wav", $i, 10), range(1, 2000));
        self::assertSame(2000, OtioReader::read(self::timeline([self::track('A', $clips)]), self::RATE)->clips());
    }

    #[DataProvider('bad')]
    public function testBadFilesAreRefusedWithASentence(string $json, string $said): void
    {
        $this->expectException(InvalidCut::class);
        $this->expectExceptionMessage($said);
        OtioReader::read($json, self::RATE);
    }

    /** @return iterable<string, array{string, string}> */
    public static function bad(): iterable
    {
        yield 'no JSON' => ['<xml/>', 'cannot be read'];
        yield 'a thousand deep' => [str_repeat('[', 1000).str_repeat(']', 1000), 'too deeply'];
        yield 'another document' => ['{"format":"wattage-mix"}', 'not an OpenTimelineIO file'];
        yield 'a collection' => ['{"OTIO_SCHEMA":"SerializableCollection.1","children":[]}', 'not an OpenTimelineIO file'];
        yield 'nothing in it' => [self::timeline([]), 'no sound in this cut'];
        yield 'a rate of 0' => [self::timeline([self::track('A', [['source_range' => ['start_time' => ['value' => 0, 'rate' => 0], 'duration' => ['value' => 1, 'rate' => 0]]] + self::clip('Z', 'z.wav', 0, 1)])]), 'its rate must be above 0'];
        yield 'a time that is no number' => [self::timeline([self::track('A', [['source_range' => ['start_time' => ['value' => 'x', 'rate' => 25], 'duration' => ['value' => 1, 'rate' => 25]]] + self::clip('Z', 'z.wav', 0, 1)])]), 'A time in “Z”'];
        yield 'years long' => [self::timeline([self::track('A', [self::gap(25 * 3600 * 30), self::clip('Z', 'z.wav', 0, 1)])]), '24 hours'];
        yield 'a hundred thousand clips' => [self::timeline([self::track('A', array_fill(0, 25_000, self::clip('Z', 'z.wav', 0, 1)))]), '20000 clips at most'];
        yield 'three hundred thousand parts' => ['['.str_repeat('{},', 300_000).'{}]', '250000 parts at most'];
        yield 'too large' => [str_repeat(' ', 20_000_001), '20 MB at most'];
    }

    public function testNegativeTimesAreNoHarm(): void
    {
        $cut = OtioReader::read(self::timeline([self::track('A', [self::clip('N', 'n.wav', -50, 100), self::gap(-20), self::clip('M', 'm.wav', 0, -5)])]), self::RATE);
        self::assertSame([0, 0], [$cut->tracks[0]->clips[0]->at, $cut->tracks[0]->clips[0]->in]);
        self::assertCount(1, $cut->tracks[0]->clips);
    }

    /** @param list<array<string, mixed>> $tracks */
    private static function timeline(array $tracks): string
    {
        return (string) json_encode(['OTIO_SCHEMA' => 'Timeline.1', 'name' => 'Ferry, cut 3', 'tracks' => ['OTIO_SCHEMA' => 'Stack.1', 'children' => $tracks]]);
    }

    /**
     * @param list<array<string, mixed>> $children
     *
     * @return array<string, mixed>
     */
    private static function track(string $name, array $children, string $kind = 'Audio'): array
    {
        return ['OTIO_SCHEMA' => 'Track.1', 'name' => $name, 'kind' => $kind, 'children' => $children];
    }

    /**
     * @param ?int $from frames into the file, at 25 a second; null for all of it
     * @param ?int $known first frame of the file; null where that is not known
     *
     * @return array<string, mixed>
     */
    private static function clip(string $name, string $url, ?int $from, int $frames, ?int $known = null): array
    {
        return [
            'OTIO_SCHEMA' => 'Clip.2', 'name' => $name, 'source_range' => null === $from ? null : self::range($from, $frames), 'active_media_reference_key' => 'DEFAULT_MEDIA',
            'media_references' => ['DEFAULT_MEDIA' => ['OTIO_SCHEMA' => 'ExternalReference.1', 'target_url' => $url, 'available_range' => null === $known ? null : self::range($known, null === $from ? $frames : 1000)]],
        ];
    }

    /** @return array<string, mixed> */
    private static function gap(int $frames): array
    {
        return ['OTIO_SCHEMA' => 'Gap.1', 'source_range' => self::range(0, $frames)];
    }

    /** @return array<string, mixed> */
    private static function range(float $from, float $frames): array
    {
        return ['OTIO_SCHEMA' => 'TimeRange.1', 'start_time' => self::time($from), 'duration' => self::time($frames)];
    }

    /** @return array<string, mixed> */
    private static function time(float $frames): array
    {
        return ['OTIO_SCHEMA' => 'RationalTime.1', 'rate' => 25.0, 'value' => $frames];
    }
}
