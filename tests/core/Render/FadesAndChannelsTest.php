<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Render;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Sound;

/** Fades, crossfades and channels as they are heard, against other programs and against the plain arithmetic. */
final class FadesAndChannelsTest extends TestCase
{
    private const FRAMES = 96_000;

    /** Same samples as ffmpeg (Debian), afade: tri is linear, qsin a quarter of a sine, hsin half a cosine. */
    #[DataProvider('fades')]
    public function testAFadeIsTheOneThatFfmpegMakes(string $edge, string $shape, string $theirName): void
    {
        $input = Sound::noise(3, self::FRAMES * 4);
        $length = 30_000;
        $mix = self::changed(self::mix(), ['edit' => 'set-fade', 'clips' => ['a'], 'edge' => $edge, 'length' => $length, 'shape' => $shape]);
        $start = 'in' === $edge ? 0 : self::FRAMES - $length;
        $theirs = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-f', 's16le', '-ar', '48000', '-ac', '2', '-i', Sound::file($input), '-af', "aformat=sample_fmts=dbl,afade=t={$edge}:ss={$start}:ns={$length}:curve={$theirName}", '-f', 'f32le', '-']));
        self::assertLessThan(-90.0, Sound::residualDbfs($theirs, self::render($mix, ['s' => $input])));
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function fades(): iterable
    {
        foreach (['linear' => 'tri', 'equal-power' => 'qsin', 's' => 'hsin'] as $shape => $theirName) {
            yield "{$shape} in" => ['in', $shape, $theirName];
            yield "{$shape} out" => ['out', $shape, $theirName];
        }
    }

    public function testAnExponentialFadeIsStraightInDecibels(): void
    {
        $shape = FadeShape::Exponential;
        $db = static fn (float $x): float => 20 * log10($shape->gainAt($x) * 0.999 + 0.001);
        self::assertEqualsWithDelta(-30.0, $db(0.5), 1e-9);
        self::assertEqualsWithDelta(-15.0, $db(0.75), 1e-9);
    }

    /** checks.md: uncorrelated noise through an equal-power crossfade stays within ±0.2 dB. */
    public function testUncorrelatedNoiseCrossesOverAtConstantLevel(): void
    {
        $frames = 10 * 48_000;
        $sources = ['s' => self::quietNoise(1, $frames), 'r' => self::quietNoise(2, $frames)];
        $mix = self::mix($frames);
        $mix = self::changed($mix, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'b', 'source' => 'r', 'at' => 2 * 48_000], $frames);
        $rendered = self::render($mix, $sources);
        // The two overlap from 2 s to 10 s; over each second of it the power is that of one of them.
        for ($second = 0; $second < 12; ++$second) {
            $power = 0.0;
            for ($i = 2 * 48_000 * $second, $end = $i + 2 * 48_000; $i < $end; ++$i) {
                $power += $rendered[$i] ** 2;
            }
            $levels[] = 10 * log10($power / 96_000);
        }
        foreach ($levels as $level) {
            self::assertEqualsWithDelta($levels[0], $level, 0.2);
        }
    }

    public function testACrossfadeTakesTheShapeOfTheLaterClip(): void
    {
        $ones = pack('v*', ...array_fill(0, 2 * self::FRAMES, 16384));
        $mix = self::changed(self::mix(), ['edit' => 'add-clip', 'track' => 't', 'clip' => 'b', 'source' => 'r', 'at' => 48_000]);
        $mix = self::changed($mix, ['edit' => 'set-fade', 'clips' => ['b'], 'edge' => 'in', 'length' => 0, 'shape' => 'linear']);
        foreach (self::render($mix, ['s' => $ones, 'r' => $ones]) as $i => $sample) {
            self::assertEqualsWithDelta(0.5, $sample, 1e-5, "equal signals stay as they are at {$i}");
        }
    }

    /** Same samples as ffmpeg (Debian), pan filter; the mono sum is the W3C Web Audio down-mix, half of each. */
    #[DataProvider('modes')]
    public function testAChannelModeIsTheOneThatFfmpegMixes(string $mode, string $left, string $right): void
    {
        $input = Sound::noise(4, self::FRAMES * 4);
        $mix = self::changed(self::mix(), ['edit' => 'set-channels', 'clips' => ['a'], 'mode' => $mode]);
        $theirs = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-f', 's16le', '-ar', '48000', '-ac', '2', '-i', Sound::file($input), '-af', "aformat=sample_fmts=dbl,pan=stereo|c0={$left}|c1={$right}", '-f', 'f32le', '-']));
        self::assertLessThan(-120.0, Sound::residualDbfs($theirs, self::render($mix, ['s' => $input])));
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function modes(): iterable
    {
        yield 'mono' => ['mono', '0.5*c0+0.5*c1', '0.5*c0+0.5*c1'];
        yield 'left' => ['left', 'c0', 'c0'];
        yield 'right' => ['right', 'c1', 'c1'];
        yield 'swapped' => ['swapped', 'c1', 'c0'];
    }

    public function testTheChannelsOfAnOpenedClipHaveLevelsOfTheirOwnBesidesThoseOfTheClip(): void
    {
        $input = Sound::noise(5, self::FRAMES * 4);
        $mix = self::mix();
        foreach ([
            ['edit' => 'open-channels', 'clips' => ['a'], 'open' => true],
            ['edit' => 'set-clip-gain', 'clips' => ['a'], 'gain' => -3],
            ['edit' => 'dip-range', 'clips' => ['a'], 'from' => 20_000, 'to' => 40_000, 'by' => -6, 'ramp' => 9000],
            ['edit' => 'set-channel', 'clip' => 'a', 'channel' => 'left', 'gain' => -2],
            ['edit' => 'dip-range', 'clips' => ['a'], 'channel' => 'right', 'from' => 30_000, 'to' => 60_000, 'by' => -9, 'ramp' => 4800],
            ['edit' => 'set-range', 'clips' => ['a'], 'channel' => 'right', 'from' => 70_000, 'to' => 80_000, 'level' => 'silence', 'ramp' => 4800],
            ['edit' => 'set-fade', 'clips' => ['a'], 'edge' => 'in', 'length' => 25_000],
        ] as $edit) {
            $mix = self::changed($mix, $edit);
        }
        $clip = $mix->clip('a');
        $ours = self::render($mix, ['s' => $input]);
        /** @var array<int, int> $samples */
        $samples = unpack('s*', $input);
        for ($n = 0; $n < self::FRAMES; ++$n) {
            $fade = $n < 25_000 ? FadeShape::EqualPower->gainAt($n / 25_000) : 1.0;
            $gain = $clip->levelAt($n)->ratio() * $fade / 32768.0;
            $left = $samples[2 * $n + 1] * $gain * 10 ** (-2 / 20);
            $right = $samples[2 * $n + 2] * $gain * $clip->channels->right?->curve->levelAt($n)->ratio();
            self::assertEqualsWithDelta($left, $ours[2 * $n], 3e-5, "left at {$n}");
            self::assertEqualsWithDelta($right, $ours[2 * $n + 1], 3e-5, "right at {$n}");
        }
        $muted = self::render(self::changed($mix, ['edit' => 'set-channel', 'clip' => 'a', 'channel' => 'left', 'muted' => true]), ['s' => $input]);
        self::assertSame(0.0, $muted[60_000]);
        self::assertSame($ours[60_001], $muted[60_001]);
    }

    public function testTheChannelsOfAnUnlinkedSourceHaveGainsOfTheirOwn(): void
    {
        $input = Sound::noise(6, self::FRAMES * 4);
        $plain = self::render(self::mix(), ['s' => $input]);
        $mix = self::changed(self::mix(), ['edit' => 'link-source', 'source' => 's', 'linked' => false]);
        $mix = self::changed($mix, ['edit' => 'set-source-gain', 'source' => 's', 'channel' => 'left', 'gain' => -6]);
        $mix = self::changed($mix, ['edit' => 'set-source-gain', 'source' => 's', 'channel' => 'right', 'gain' => 'silence']);
        $ours = self::render($mix, ['s' => $input]);
        self::assertEqualsWithDelta($plain[1000] * 10 ** (-6 / 20), $ours[1000], 1e-9);
        self::assertSame(0.0, $ours[1001]);
    }

    private static function quietNoise(int $seed, int $frames): string
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        $values = [];
        for ($i = 0; $i < 2 * $frames; ++$i) {
            $values[] = $random->getInt(-4000, 4000);
        }

        return pack('s*', ...$values);
    }

    private static function mix(int $frames = self::FRAMES): Mix
    {
        $mix = Mix::of(48_000, FrameRate::F25, [self::source('s', $frames)], [Track::named('t', 'Track', Stem::Music)]);

        return self::changed($mix, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'a', 'source' => 's', 'at' => 0], $frames);
    }

    private static function source(string $id, int $frames = self::FRAMES): Source
    {
        return new Source($id, 'Source', $frames, 2, Decibels::unchanged());
    }

    /** @param array<string, mixed> $edit */
    private static function changed(Mix $mix, array $edit, int $frames = self::FRAMES): Mix
    {
        return Mixes::edited($mix, $edit, ['r' => self::source('r', $frames)]);
    }

    /**
     * @param array<string, string> $inputs
     *
     * @return list<float>
     */
    private static function render(Mix $mix, array $inputs): array
    {
        $all = [];
        foreach ((new Renderer($mix, array_map(static fn (string $bytes): \Wattage\Core\Render\PcmStream => Sound::stream($bytes, 2, 16), $inputs)))->render(Span::of(0, $mix->length())) as $samples) {
            array_push($all, ...$samples);
        }

        return $all;
    }
}
