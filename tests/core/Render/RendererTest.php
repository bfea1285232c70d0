<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Render;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Signal\SampleFormat;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\PlainWav;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

final class RendererTest extends TestCase
{
    private const FRAMES = 24_000;

    /** Same samples as ffmpeg (Debian) with the same gain. */
    #[DataProvider('gains')]
    public function testAGainChangesEverySampleAsFfmpegDoes(float $db): void
    {
        $input = self::noiseFile();
        $ours = self::render(self::mix(gain: Decibels::of($db)), $input);
        $theirs = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-f', 's16le', '-ar', '48000', '-ac', '2', '-i', Sound::file($input), '-af', "volume={$db}dB:precision=double", '-f', 'f32le', '-']));
        self::assertLessThan(-120.0, Sound::residualDbfs($theirs, $ours));
    }

    /** @return iterable<string, array{float}> */
    public static function gains(): iterable
    {
        yield 'up 6 dB' => [6.0];
        yield 'down 12 dB' => [-12.0];
        yield 'down 0.1 dB' => [-0.1];
        yield 'up 24 dB' => [24.0];
    }

    /** A ramp that is straight in dB, against sox playing the closed formula through ffmpeg's expression evaluator. */
    public function testADecibelRampFollowsTheFormulaAsFfmpegEvaluatesIt(): void
    {
        $input = self::noiseFile();
        $curve = Curve::of([new Keyframe(0, Decibels::of(0.0), Ramp::line()), new Keyframe(self::FRAMES, Decibels::of(-30.0), Ramp::line())]);
        $ours = self::render(self::mix(curve: $curve), $input);
        $expression = 'val(ch)*pow(10\,-30*n/'.self::FRAMES.'/20)';
        $theirs = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-f', 's16le', '-ar', '48000', '-ac', '2', '-i', Sound::file($input), '-af', "aeval={$expression}:c=same", '-f', 'f32le', '-']));
        self::assertLessThan(-120.0, Sound::residualDbfs($theirs, $ours));
    }

    /** Same samples as sox (Debian) when two files are added up at given gains. */
    public function testTwoTracksAddUpAsSoxAddsThem(): void
    {
        $inputs = [Sound::pcm16(Sound::sine(440, 0.4, self::FRAMES), Sound::sine(310, 0.3, self::FRAMES)), Sound::pcm16(Sound::sine(97, 0.3, self::FRAMES), Sound::sine(1200, 0.2, self::FRAMES))];
        $tracks = [];
        foreach ([0.5, 0.25] as $i => $ratio) {
            $clip = new Clip("c{$i}", "s{$i}", 'Clip', 0, 0, self::FRAMES, Decibels::fromRatio($ratio), Curve::flat());
            $tracks[] = Track::named("t{$i}", 'Track', Stem::Music)->withClip($clip);
        }
        $mix = Mix::of(48_000, FrameRate::F25, [self::source('s0'), self::source('s1')], $tracks);
        $ours = [];
        foreach ((new Renderer($mix, ['s0' => Sound::stream($inputs[0], 2, 16), 's1' => Sound::stream($inputs[1], 2, 16)]))->render(Span::of(0, self::FRAMES)) as $samples) {
            $ours = [...$ours, ...$samples];
        }
        $raw = ['-t', 'raw', '-e', 'signed', '-b', '16', '-r', '48000', '-c', '2'];
        $theirs = Sound::floats(Sound::run(['sox', '-m', '-v', '0.5', ...$raw, Sound::file($inputs[0]), '-v', '0.25', ...$raw, Sound::file($inputs[1]), '-t', 'raw', '-e', 'float', '-b', '32', '-']));
        self::assertLessThan(-90.0, Sound::residualDbfs($theirs, $ours));
    }

    /** Source: W3C Web Audio API, StereoPannerNode, equations for stereo input, written out here a second time. */
    #[DataProvider('pans')]
    public function testPanFollowsTheEquationsOfTheWebAudioApi(float $pan): void
    {
        $p = Pan::at($pan);
        $x = ($pan <= 0 ? $pan + 1 : $pan) * \M_PI / 2;
        [$inL, $inR] = [0.3, -0.7];
        $expected = $pan <= 0 ? [$inL + $inR * cos($x), $inR * sin($x)] : [$inL * cos($x), $inR + $inL * sin($x)];
        self::assertEqualsWithDelta($expected[0], $inL * $p->leftToLeft + $inR * $p->rightToLeft, 1e-12);
        self::assertEqualsWithDelta($expected[1], $inL * $p->leftToRight + $inR * $p->rightToRight, 1e-12);
    }

    /** @return iterable<array{float}> */
    public static function pans(): iterable
    {
        foreach ([-1.0, -0.5, -0.01, 0.0, 0.25, 0.8, 1.0] as $pan) {
            yield [$pan];
        }
    }

    public function testAMonoSourcePansAsTheSameSoundOnBothSidesWould(): void
    {
        $mono = Sound::pcm16(Sound::sine(440, 0.5, self::FRAMES));
        $stereo = Sound::pcm16(Sound::sine(440, 0.5, self::FRAMES), Sound::sine(440, 0.5, self::FRAMES));
        self::assertLessThan(-140.0, Sound::residualDbfs(self::render(self::mix(pan: 0.4), $stereo), self::render(self::mix(pan: 0.4, channels: 1), $mono, 1)));
    }

    /** The fast renderer against its slow, obvious twin: one sample at a time, with gains from the curve itself. */
    #[DataProvider('seeds')]
    public function testRenderingIsGainTimesSampleWhateverTheCurve(int $seed): void
    {
        $random = new Random($seed);
        $bits = 0 === $seed % 2 ? 16 : 24;
        $channels = 0 === $seed % 3 ? 1 : 2;
        $input = Sound::noise($seed, self::FRAMES * $channels * intdiv($bits, 8));
        $curve = $random->curve(self::FRAMES, silence: true);
        $in = $random->int(0, 3000);
        $clip = new Clip('c', 's', 'Clip', $random->int(0, 5000), $in, $random->int(9000, self::FRAMES - $in), Decibels::of(-3.0), $curve);
        $mix = Mix::of(48_000, FrameRate::F25, [self::source('s', $channels)], [new Track('t', 'T', Stem::Music, Decibels::of(1.5), 0.0, false, ['c' => $clip])]);
        $ours = self::render($mix, $input, $channels, $bits);

        $samples = \Wattage\Core\Signal\PcmDecoder::decode($input, \Wattage\Core\Signal\PcmFormat::of($channels, $bits));
        $stretches = $curve->stretchesWithin($clip->heard());
        $s = 0;
        for ($n = 0; $n < $clip->length; ++$n) {
            $position = $in + $n;
            while ($stretches[$s]->to <= $position) {
                ++$s;
            }
            $gain = $stretches[$s]->appliedGainAt($position) * 10 ** (-1.5 / 20) / (1 << ($bits - 1));
            $o = 2 * ($clip->at + $n);
            self::assertEqualsWithDelta($samples[$position * $channels] * $gain, $ours[$o], 1e-9, "left at {$n}");
            self::assertEqualsWithDelta($samples[$position * $channels + $channels - 1] * $gain, $ours[$o + 1], 1e-9, "right at {$n}");
        }
    }

    /** @return iterable<array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 12; ++$seed) {
            yield [$seed];
        }
    }

    public function testRenderingInPartsEqualsRenderingWhole(): void
    {
        $random = new Random(5);
        $mix = self::mix(curve: $random->curve(self::FRAMES), pan: 0.3);
        $renderer = new Renderer($mix, ['s' => Sound::stream(self::noiseFile(), 2, 16)]);
        $collect = static function (int $from, int $to) use ($renderer): array {
            $all = [];
            foreach ($renderer->render(Span::of($from, $to)) as $samples) {
                $all = [...$all, ...$samples];
            }

            return $all;
        };
        $whole = $collect(0, self::FRAMES);
        $parts = [...$collect(0, 7777), ...$collect(7777, 7778), ...$collect(7778, self::FRAMES)];
        self::assertCount(\count($whole), $parts);
        self::assertLessThan(-200.0, Sound::residualDbfs($whole, $parts));
    }

    public function testAMutedTrackAndASilentFaderAreNotHeard(): void
    {
        $input = self::noiseFile();
        $track = self::mix()->track('t');
        foreach ([$track->withMuted(true), $track->withFader(Decibels::silence())] as $silent) {
            self::assertSame(-400.0, Sound::residualDbfs(self::render(self::mix()->withTrack($silent), $input), array_fill(0, 2 * self::FRAMES, 0.0)));
        }
    }

    public function testAWavRenderIsAWholeFileThatFfmpegReadsBack(): void
    {
        $stream = Sound::memory();
        PlainWav::write(self::mix(), ['s' => Sound::stream(self::noiseFile(), 2, 16)], SampleFormat::Float32, $stream);
        $file = Sound::file(Sound::contents($stream), '.wav');
        $theirs = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-i', $file, '-f', 'f32le', '-']));
        self::assertLessThan(-140.0, Sound::residualDbfs($theirs, self::render(self::mix(), self::noiseFile())));
    }

    private static function noiseFile(): string
    {
        return Sound::noise(9, self::FRAMES * 4);
    }

    private static function source(string $id, int $channels = 2): Source
    {
        return new Source($id, 'Source', self::FRAMES, $channels, Decibels::unchanged());
    }

    private static function mix(?Decibels $gain = null, ?Curve $curve = null, float $pan = 0.0, int $channels = 2): Mix
    {
        $clip = new Clip('c', 's', 'Clip', 0, 0, self::FRAMES, $gain ?? Decibels::unchanged(), $curve ?? Curve::flat());

        return Mix::of(48_000, FrameRate::F25, [self::source('s', $channels)], [Track::named('t', 'Track', Stem::Music)->withPan($pan)->withClip($clip)]);
    }

    /** @return list<float> */
    private static function render(Mix $mix, string $input, int $channels = 2, int $bits = 16): array
    {
        $all = [];
        foreach ((new Renderer($mix, ['s' => Sound::stream($input, $channels, $bits)]))->render(Span::of(0, $mix->length())) as $samples) {
            array_push($all, ...$samples);
        }

        return $all;
    }
}
