<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Render;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Demo;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Sound;

/** What lanes, stem faders and the programme fader do, in the sound that is rendered: a constant, so that each sample is the gain. */
final class LanesTest extends TestCase
{
    private const FRAMES = 48_000;

    public function testTheLevelLaneTakesOverFromTheFader(): void
    {
        $mix = self::edited(self::mix(), ['edit' => 'set-fader', 'track' => 't', 'fader' => -40], ...self::keyframes('level', [[0, -6], [24_000, -18]]));
        [$left] = self::rendered($mix);
        foreach ([0 => -6.0, 6_000 => -9.0, 12_000 => -12.0, 24_000 => -18.0, 40_000 => -18.0] as $at => $db) {
            self::assertEqualsWithDelta(10 ** ($db / 20), $left[$at], 2e-5);
        }
        [$off] = self::rendered(self::edited($mix, ['edit' => 'set-lanes-off', 'track' => 't', 'off' => true]));
        self::assertEqualsWithDelta(0.01, $off[12_000], 2e-5, 'not followed, the fader counts again');
    }

    public function testLanesStayOnTheTimelineAndClipCurvesTravelWithTheSound(): void
    {
        $mix = self::edited(self::mix(), ...self::keyframes('level', [[24_000, 0], [24_240, -20]]));
        $mix = self::edited($mix, ['edit' => 'add-keyframe', 'clip' => 'c', 'at' => 0, 'level' => 0], ['edit' => 'add-keyframe', 'clip' => 'c', 'at' => 480, 'level' => -6]);
        $moved = self::edited($mix, ['edit' => 'move-clip', 'clip' => 'c', 'track' => 't', 'at' => 12_000]);
        [$left] = self::rendered($moved);
        self::assertEqualsWithDelta(1.0, $left[12_000], 2e-5);
        self::assertEqualsWithDelta(10 ** (-6 / 20), $left[12_480], 2e-5, 'the clip’s keyframe has moved along');
        self::assertEqualsWithDelta(10 ** (-26 / 20), $left[24_240], 2e-5, 'that of the lane has not');
    }

    /** W3C Web Audio API, StereoPannerNode, stereo input, with its pan on a straight line. */
    public function testAPanThatMovesFollowsTheEquationsAtEverySample(): void
    {
        $mix = self::mix();
        $track = $mix->track('t');
        $mix = $mix->withTrack($track->withLanes($track->lanes->withPan(new PanLane([[4_800, -1.0], [43_200, 1.0]]))));
        [$left, $right] = self::rendered($mix);
        foreach ([0, 4_800, 10_000, 20_000, 23_999, 24_001, 30_000, 43_200, 47_999] as $at) {
            $pan = max(-1.0, min(1.0, -1.0 + 2.0 * ($at - 4_800) / 38_400));
            $x = ($pan <= 0 ? $pan + 1 : $pan) * \M_PI / 2;
            $expected = $pan <= 0 ? [1.0 + cos($x), sin($x)] : [cos($x), sin($x) + 1.0];
            self::assertEqualsWithDelta($expected[0], $left[$at], 1e-4);
            self::assertEqualsWithDelta($expected[1], $right[$at], 1e-4);
        }
    }

    public function testAMuteLaneIsSilentWithoutAClick(): void
    {
        $mix = self::edited(self::mix(), ['edit' => 'ride', 'passes' => [['track' => 't', 'mode' => 'write', 'start' => 9_600, 'stop' => 24_000, 'mute' => [[9_600, 1, 1]]]]]);
        [$left] = self::rendered($mix);
        self::assertEqualsWithDelta([1.0, 0.5, 0.0, 0.0, 1.0], [$left[9_600], $left[9_720], $left[9_840], $left[20_000], $left[24_300]], 1e-3);
        for ($i = 1; $i < self::FRAMES; ++$i) {
            self::assertLessThan(0.01, abs($left[$i] - $left[$i - 1]));
        }
    }

    public function testStemAndProgrammeFadersAreMadeLouderOrSofterWithIt(): void
    {
        $mix = self::edited(self::mix(), ['edit' => 'set-stem-fader', 'stem' => 'music', 'fader' => -4], ['edit' => 'set-programme-fader', 'fader' => 3], ['edit' => 'set-stem-fader', 'stem' => 'speech', 'fader' => -60]);
        self::assertEqualsWithDelta(10 ** (-1 / 20), self::rendered($mix)[0][100], 2e-5);
        $silent = self::edited($mix, ['edit' => 'set-stem-fader', 'stem' => 'music', 'fader' => 'silence']);
        self::assertSame(0.0, self::rendered($silent)[0][100]);
    }

    /** Pieces of any size give the same sound as the whole, with everything moving at once. */
    public function testRenderedInPiecesItIsTheSame(): void
    {
        $mix = self::edited(self::mix(), ...self::keyframes('level', [[0, -6], [20_000, 'silence'], [30_000, 3]]), ...self::keyframes('ducking', [[8_000, 0], [9_000, -12], [26_000, -12], [27_000, 0]]));
        $track = $mix->track('t');
        $mix = $mix->withTrack($track->withLanes($track->lanes->withPan(new PanLane([[1_000, 0.3], [40_000, -0.9]]))));
        $whole = self::samples($mix, Span::of(0, self::FRAMES));
        foreach ([[0, 7_001], [7_001, 26_500], [26_500, self::FRAMES]] as [$from, $to]) {
            self::assertEqualsWithDelta(\array_slice($whole, 2 * $from, 2 * ($to - $from)), self::samples($mix, Span::of($from, $to)), 1e-9);
        }
    }

    /** @param list<array<string, mixed>> $edits */
    #[DataProvider('movements')]
    public function testThePredictionFollowsTheLanes(array $edits): void
    {
        $demo = Demo::open();
        $mix = Mixes::edited(Mix::empty(), ['edit' => 'add-track', 'track' => 'm', 'name' => 'M', 'stem' => 'music']);
        $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 'm', 'clip' => 'c', 'source' => 'narrator', 'at' => 0, 'in' => 48_000, 'length' => 15 * self::FRAMES], $demo->mix->sources);
        $mix = self::edited($mix, ...$edits);
        [$powers] = $demo->rendered($mix);
        $predicted = MixFigures::of($mix, $demo->tenths()(...))->programme();
        self::assertEqualsWithDelta(Gating::integrated($powers), $predicted->integrated, 0.3);
    }

    /** @return iterable<string, array{list<array<string, mixed>>}> */
    public static function movements(): iterable
    {
        $ride = static fn (string $part, array $samples): array => ['edit' => 'ride', 'passes' => [['track' => 'm', 'mode' => 'write', 'start' => 0, 'stop' => 15 * self::FRAMES, $part => $samples]]];
        yield 'a level lane' => [[$ride('level', [[0, -20.0, 1], [5 * self::FRAMES, 3.0, 1], [10 * self::FRAMES, -8.0, 1]])]];
        // Mono: how far the sides of a stereo sound are alike is not measured, so what a pan adds up of them is not known.
        yield 'a pan lane' => [[$ride('pan', [[0, -1.0, 1], [7 * self::FRAMES, 1.0, 1], [15 * self::FRAMES, 0.2, 1]])]];
        yield 'mutes' => [[$ride('mute', [[0, 0, 1], [4 * self::FRAMES, 1, 1], [9 * self::FRAMES, 0, 1]])]];
        yield 'faders after it' => [[['edit' => 'set-stem-fader', 'stem' => 'music', 'fader' => -7], ['edit' => 'set-programme-fader', 'fader' => -2.5]]];
    }

    private static function mix(): Mix
    {
        $mix = Mixes::edited(Mix::empty(), ['edit' => 'add-track', 'track' => 't', 'name' => 'T', 'stem' => 'music']);

        return Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => 's', 'at' => 0], ['s' => new Source('s', 'S', self::FRAMES, 2, Decibels::unchanged())]);
    }

    /** @param array<string, mixed> ...$edits */
    private static function edited(Mix $mix, array ...$edits): Mix
    {
        return array_reduce($edits, static fn (Mix $m, array $edit): Mix => Mixes::edited($m, $edit), $mix);
    }

    /**
     * @param list<array{int, int|string}> $points
     *
     * @return list<array<string, mixed>>
     */
    private static function keyframes(string $lane, array $points): array
    {
        return array_map(static fn (array $p): array => ['edit' => 'add-keyframe', 'track' => 't', 'lane' => $lane, 'at' => $p[0], 'level' => $p[1]], $points);
    }

    /** @return array{list<float>, list<float>} the gain of each side at each sample: the source is a constant half on both */
    private static function rendered(Mix $mix): array
    {
        $sides = [[], []];
        foreach (self::samples($mix, Span::of(0, $mix->length())) as $i => $sample) {
            $sides[$i % 2][] = 2.0 * $sample;
        }

        return $sides;
    }

    /** @return list<float> */
    private static function samples(Mix $mix, Span $span): array
    {
        $constant = Sound::pcm16(array_fill(0, self::FRAMES, 0.5), array_fill(0, self::FRAMES, 0.5));
        $samples = [];
        foreach ((new Renderer($mix, ['s' => Sound::stream($constant, 2, 16)]))->render($span) as $piece) {
            array_push($samples, ...$piece);
        }

        return $samples;
    }
}
