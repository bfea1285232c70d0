<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Cut;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Cut\Carried;
use Wattage\Core\Cut\CutClip;
use Wattage\Core\Cut\CutTrack;
use Wattage\Core\Cut\Laid;
use Wattage\Core\Cut\OtioReader;
use Wattage\Core\Cut\OtioWriter;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

final class OtioWriterTest extends TestCase
{
    public function testEveryClipComesBackWhereItWas(): void
    {
        // Apart, end to end, overlapping by an odd number of samples, and one that lies wholly under another.
        $mix = self::mix([[1000, 500, 10_000], [11_000, 0, 20_000], [30_001, 7, 9999], [60_000, 1, 5000], [61_000, 2, 100]]);
        $cut = OtioReader::read(OtioWriter::write($mix, 'Ferry', ['s' => 'host one.wav']), 48_000);
        self::assertSame(['Voice', 'Voice 2'], array_column($cut->tracks, 'name'));
        $back = array_merge(...array_map(static fn (CutTrack $track): array => array_map(static fn (CutClip $clip): array => [$clip->at, $clip->in, $clip->length, $clip->media], $track->clips), $cut->tracks));
        sort($back);
        self::assertSame(array_map(static fn (array $c): array => [...$c, 'host one.wav'], [[1000, 500, 10_000], [11_000, 0, 20_000], [30_001, 7, 9999], [60_000, 1, 5000], [61_000, 2, 100]]), $back);
        self::assertSame([[48_000, 'Fog; = #']], $cut->markers);
        self::assertSame([], $cut->left);
    }

    public function testOneClipMayReachOverTwoOthers(): void
    {
        $clips = [[0, 0, 10_000], [5000, 0, 6000], [9000, 0, 5000]];
        $cut = OtioReader::read(OtioWriter::write(self::mix($clips), 'Ferry', []), 48_000);
        $back = array_merge(...array_map(static fn (CutTrack $track): array => array_map(static fn (CutClip $clip): array => [$clip->at, $clip->in, $clip->length], $track->clips), $cut->tracks));
        sort($back);
        self::assertSame($clips, $back);
    }

    public function testTheWholeMixGoesAlong(): void
    {
        $mix = self::mix([[0, 0, 10_000]]);
        /** @var array{metadata: array{wattage: array<string, mixed>}} $file */
        $file = json_decode(OtioWriter::write($mix, 'Ferry', []), true);
        self::assertEquals($mix, MixDocument::decode((string) json_encode($file['metadata']['wattage'])));
    }

    public function testChannelsOfOneFileComeBackEachToItsOwn(): void
    {
        $source = static fn (string $id, string $name): Source => new Source($id, $name, 100_000, 1, Decibels::unchanged());
        $track = static fn (string $id): Track => Track::named("t-{$id}", $id, Stem::Speech)->withClip(new Clip("c-{$id}", $id, 'a' === $id ? 'take.wav · Boom' : 'take.wav · Lav', 0, 0, 1000, Decibels::unchanged(), Curve::flat()));
        $mix = Mix::of(48_000, FrameRate::F25, [$source('a', 'take.wav · Boom'), $source('b', 'take.wav · Lav')], [$track('a'), $track('b')]);
        $written = OtioWriter::write($mix, 'Ferry', ['a' => 'take.wav', 'b' => 'take.wav']);
        $there = Carried::in($written, [['take.wav', $source('x', 'take.wav · Boom')], ['take.wav', $source('y', 'take.wav · Lav')]]);
        self::assertSame(['x', 'y'], array_map(static fn (Track $t): string => array_values($t->clips)[0]->source, array_values(MixDocument::fromArray($there)->tracks)));
        $sources = [['take.wav', $source('x', 'take.wav · Boom')], ['take.wav', $source('y', 'take.wav · Lav')]];
        $laid = Laid::of(OtioReader::read($written, 48_000), $sources, Mix::empty(), 'k');
        /** @var array{tracks: list<array{clips: list<array{source: string}>}>} $edit */
        $edit = $laid->edit;
        self::assertSame(['x', 'y'], array_map(static fn (array $t): string => $t['clips'][0]['source'], $edit['tracks']), 'also where the mix is not read');
    }

    /** @param list<array{int, int, int}> $clips at, in, length */
    private static function mix(array $clips): Mix
    {
        $track = Track::named('t', 'Voice', Stem::Speech);
        foreach ($clips as $i => [$at, $in, $length]) {
            $track = $track->withClip(new Clip("c{$i}", 's', "Clip {$i}", $at, $in, $length, Decibels::of(-3.0), Curve::flat()));
        }

        return Mix::of(48_000, FrameRate::F25, [new Source('s', 'Host', 100_000, 1, Decibels::unchanged())], [$track], [new Marker('m', 48_000, 'Fog; = #')]);
    }
}
