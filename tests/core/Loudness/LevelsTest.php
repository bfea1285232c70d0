<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\AverageLevel;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Signal\SampleEncoder;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Speech\HeardPart;
use Wattage\Core\Speech\SpeechLevels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

/** Averages and loudness from the blocks that sources are measured in. */
final class LevelsTest extends TestCase
{
    /**
     * EBU Tech 3341, cases 1, 3, 4 and 5 (recalled from memory [M]): stereo 1 kHz sines, integrated −23.0 LUFS ±0.1.
     *
     * @param list<array{float, float}> $parts level in dBFS and seconds
     */
    #[DataProvider('gatingCases')]
    public function testGatedLoudnessReadsWhatTheEbuSays(array $parts): void
    {
        $written = Sound::memory();
        $measurer = new SourceMeasurer(PcmFormat::of(2, 16), 48_000, $written, Sound::memory());
        foreach ($parts as [$db, $seconds]) {
            $tenth = Sound::sine(1000, 10 ** ($db / 20), 4800);
            $bytes = Sound::pcm16($tenth, $tenth);
            for ($n = (int) round(10 * $seconds); $n > 0; --$n) {
                $measurer->push($bytes);
            }
        }
        $measurer->finish();
        $blocks = SourceBlocks::fromBytes(Sound::contents($written), 2);
        $sum = array_map(static fn (float $a, float $b): float => $a + $b, $blocks->powers(0), $blocks->powers(1));
        self::assertEqualsWithDelta(-23.0, Gating::integrated(Gating::tenths($sum)), 0.1);
    }

    /** @return iterable<string, array{list<array{float, float}>}> */
    public static function gatingCases(): iterable
    {
        yield 'case 1' => [[[-23.0, 20.0]]];
        yield 'case 3' => [[[-36.0, 10.0], [-23.0, 60.0], [-36.0, 10.0]]];
        yield 'case 4' => [[[-72.0, 10.0], [-36.0, 10.0], [-23.0, 60.0], [-36.0, 10.0], [-72.0, 10.0]]];
        yield 'case 5' => [[[-26.0, 20.0], [-20.0, 20.1], [-26.0, 20.0]]];
    }

    public function testTheAverageOfARecordingIsItsRmsAndTheSameInMonoAndStereo(): void
    {
        $sine = Sound::sine(997, 10 ** (-17 / 20), 96_000);
        // A sine of −17 dBFS peak has an RMS of −20.01 dBFS.
        self::assertEqualsWithDelta(-20.0, AverageLevel::of(self::blocks(Sound::pcm16($sine), 1)), 0.1);
        self::assertEqualsWithDelta(-20.0, AverageLevel::of(self::blocks(Sound::pcm16($sine, $sine), 2)), 0.1);
        $paused = [...$sine, ...array_fill(0, 480_000, 0.0), ...$sine];
        self::assertEqualsWithDelta(-20.0, AverageLevel::of(self::blocks(Sound::pcm16($paused), 1)), 0.6, 'pauses do not count');
        self::assertNull(AverageLevel::of(self::blocks(Sound::pcm16(array_fill(0, 96_000, 0.0)), 1)));
    }

    /** The prediction from blocks and gains, against measuring what is rendered. Sounds here are unlike one another, as it assumes. */
    public function testTheLoudnessOfAMixIsKnownWithoutRenderingIt(): void
    {
        $frames = 12 * 48_000;
        $inputs = ['a' => self::noise(1, $frames, 2), 'b' => self::noise(2, $frames, 1)];
        $channels = ['a' => 2, 'b' => 1];
        $mix = Mix::of(48_000, FrameRate::F25, array_map(static fn (string $id): Source => new Source($id, $id, $frames, $channels[$id], Decibels::unchanged()), ['a', 'b']), [Track::named('t', 'T', Stem::Music), Track::named('u', 'U', Stem::Speech)]);
        foreach ([
            ['edit' => 'add-clip', 'track' => 't', 'clip' => 'x', 'source' => 'a', 'at' => 0],
            ['edit' => 'add-clip', 'track' => 'u', 'clip' => 'y', 'source' => 'b', 'at' => 96_123],
            ['edit' => 'dip-range', 'clips' => ['x'], 'from' => 100_000, 'to' => 300_000, 'by' => -12, 'ramp' => 30_000],
            ['edit' => 'set-fade', 'clips' => ['x'], 'edge' => 'in', 'length' => 96_000],
            ['edit' => 'set-fader', 'track' => 't', 'fader' => -3],
            ['edit' => 'set-pan', 'track' => 'u', 'pan' => 0.4],
        ] as $edit) {
            $mix = Mixes::edited($mix, $edit);
        }
        $blocks = array_map(static fn (string $id): SourceBlocks => self::blocks($inputs[$id], $channels[$id]), ['a' => 'a', 'b' => 'b']);
        $predicted = MixFigures::of($mix, static fn (string $id): ?SourceTenths => isset($blocks[$id]) ? SourceTenths::of($blocks[$id]) : null)->programme()->integrated;
        $encoder = new SampleEncoder(SampleFormat::Pcm24);
        $rendered = '';
        foreach ((new Renderer($mix, ['a' => Sound::stream($inputs['a'], 2, 16), 'b' => Sound::stream($inputs['b'], 1, 16)]))->render(Span::of(0, $mix->length())) as $samples) {
            $rendered .= $encoder->encode($samples);
        }
        $measured = self::blocks($rendered, 2, 24);
        $sum = array_map(static fn (float $a, float $b): float => $a + $b, $measured->powers(0), $measured->powers(1));
        self::assertNotNull($predicted);
        self::assertEqualsWithDelta(Gating::integrated(Gating::tenths($sum)), $predicted, 0.2);
    }

    public function testTwoProgrammesAreComparedOverTheSameMoments(): void
    {
        $speechOverBed = [...array_fill(0, 50, 0.01), ...array_fill(0, 50, 0.002)];
        $speechAlone = [...array_fill(0, 50, 0.009), ...array_fill(0, 50, 0.00001)];
        self::assertGreaterThan(Gating::integrated($speechOverBed), Gating::integrated($speechAlone), 'gated each by itself, the quieter one reads louder');
        [$a, $b] = Gating::sideBySide(Series::of($speechOverBed), Series::of($speechAlone));
        self::assertEqualsWithDelta(10 * log10(0.0045 / 0.006), $b - $a, 0.05);
        self::assertSame([null, null], Gating::sideBySide(Series::of([]), Series::of([0.0, 0.0])));
        self::assertNull(Gating::sideBySide(Series::of(array_fill(0, 5, 0.0)), Series::of(array_fill(0, 5, 0.01)))[0]);
    }

    public function testDeadAirIsWhatDoesNotStandOutOfTheBackground(): void
    {
        $random = new Random(4);
        $samples = [];
        for ($i = 0; $i < 10 * 48_000; ++$i) {
            $speaks = $i > 3 * 48_000 && $i < 7 * 48_000;
            $click = $i > 48_000 && $i < 48_000 + 300;
            $samples[] = $random->float(-1, 1) * ($speaks || $click ? 0.1 : 0.001);
        }
        $blocks = self::blocks(Sound::pcm16($samples), 1);
        $heard = HeardPart::of(SpeechLevels::of($blocks), Span::of(0, 480_000), 48_000);
        self::assertNotNull($heard);
        self::assertEqualsWithDelta(2.85, $heard->from / 48_000, 0.05, 'a single click is no speech');
        self::assertEqualsWithDelta(7.35, $heard->to / 48_000, 0.05);
        $part = HeardPart::of(SpeechLevels::of($blocks), Span::of(4 * 48_000, 8 * 48_000), 48_000);
        self::assertSame(4 * 48_000, $part?->from);
    }

    private static function blocks(string $pcm, int $channels, int $bits = 16): SourceBlocks
    {
        $blocks = Sound::memory();
        $measurer = new SourceMeasurer(PcmFormat::of($channels, $bits), 48_000, $blocks, Sound::memory());
        $measurer->push($pcm);
        $measurer->finish();

        return SourceBlocks::fromBytes(Sound::contents($blocks), $channels);
    }

    private static function noise(int $seed, int $frames, int $channels): string
    {
        $random = new Random($seed);
        $values = [];
        for ($i = 0; $i < $frames * $channels; ++$i) {
            $values[] = $random->int(-6000, 6000) & 0xFFFF;
        }

        return pack('v*', ...$values);
    }
}
