<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Loudness\InvalidCeiling;
use Wattage\Core\Loudness\Overview;
use Wattage\Core\Loudness\Peak;
use Wattage\Core\Loudness\Peaks;
use Wattage\Core\Loudness\SourceMeasurer;
use Wattage\Core\Render\GainSchedule;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\PcmFormat;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Fades;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Sound;

/** Single loud moments: found wherever they are, and tamed to the ceiling in what is rendered. */
final class PeaksTest extends TestCase
{
    private const FRAMES = 10 * 48_000;

    /** Issue: a tamed peak is at its ceiling ±0.1 dB in the render. */
    public function testTamedPeaksComeToTheCeilingInTheRender(): void
    {
        $input = self::slams([48_000, 100_123, 250_001, 251_500, 400_000]);
        $mix = self::mix();
        foreach ([
            ['edit' => 'set-clip-gain', 'clips' => ['c'], 'gain' => 2],
            ['edit' => 'dip-range', 'clips' => ['c'], 'from' => 90_000, 'to' => 200_000, 'by' => -3, 'ramp' => 20_000],
            ['edit' => 'set-fade', 'clips' => ['c'], 'edge' => 'in', 'length' => 96_000],
        ] as $edit) {
            $mix = Mixes::edited($mix, $edit);
        }
        $ceiling = -9.0;
        $peaks = self::peaks($mix, $input, $ceiling);
        self::assertGreaterThanOrEqual(4, \count($peaks));
        $after = Mixes::edited($mix, ['edit' => 'tame', 'notches' => array_map(static fn (Peak $p): array => ['clip' => 'c', 'at' => $p->notch->at, 'by' => $p->notch->by, 'before' => $p->notch->before, 'after' => $p->notch->after, 'hold' => $p->notch->hold], $peaks)]);
        $rendered = self::render($after, $input);
        foreach ($peaks as $peak) {
            self::assertGreaterThan($ceiling, $peak->db);
            $loudest = 0.0;
            for ($i = 2 * max(0, $peak->notch->at - 4800), $end = min($i + 2 * 9600, 2 * self::FRAMES); $i < $end; ++$i) {
                $loudest = max($loudest, abs($rendered[$i]));
            }
            self::assertEqualsWithDelta($ceiling, 20 * log10($loudest), 0.1, "at {$peak->notch->at}");
        }
        self::assertSame([], self::peaks($after, $input, $ceiling + 0.1), 'nothing is left to tame');
    }

    public function testItFindsWhatASlowLookAtEverySampleFinds(): void
    {
        $random = new Random(3);
        $at = array_map(static fn (): int => $random->int(10_000, self::FRAMES - 10_000), range(1, 12));
        $input = self::slams($at);
        foreach (['stereo', 'mono', 'left', 'swapped'] as $mode) {
            $mix = Mixes::edited(self::mix(), ['edit' => 'set-channels', 'clips' => ['c'], 'mode' => $mode]);
            $found = self::peaks($mix, $input, -12.0);
            $rendered = self::render($mix, $input);
            $hot = [];
            for ($n = 0; $n < self::FRAMES; ++$n) {
                if (max(abs($rendered[2 * $n]), abs($rendered[2 * $n + 1])) > 10 ** (-12 / 20)) {
                    $hot[intdiv($n, 9600)] = true;
                }
            }
            $foundIn = array_unique(array_map(static fn (Peak $p): int => intdiv($p->notch->at, 9600), $found));
            self::assertSame([], array_diff($foundIn, array_keys($hot)), $mode);
            self::assertGreaterThanOrEqual(\count($hot) - 4, \count($foundIn), $mode);
        }
    }

    public function testAMomentThatLastsIsHeldDownAsAWhole(): void
    {
        $loud = [...Sound::sine(300, 0.02, 96_000), ...Sound::sine(300, 0.5, 48_000), ...Sound::sine(300, 0.02, self::FRAMES - 144_000)];
        $input = Sound::pcm16($loud, $loud);
        $peaks = self::peaks(self::mix(), $input, -12.0);
        self::assertCount(1, $peaks);
        self::assertEqualsWithDelta(48_000, $peaks[0]->notch->hold, 300);
        $tamed = Mixes::edited(self::mix(), ['edit' => 'tame', 'notches' => [['clip' => 'c', 'at' => $peaks[0]->notch->at, 'by' => $peaks[0]->notch->by, 'before' => $peaks[0]->notch->before, 'after' => $peaks[0]->notch->after, 'hold' => $peaks[0]->notch->hold]]]);
        self::assertEqualsWithDelta(-12.0, 20 * log10(max(array_map(abs(...), self::render($tamed, $input)))), 0.1);
        self::assertCount(4, $tamed->clip('c')->curve->keyframes);
    }

    /** Peaks are those of the coloured clip: thumps that a low cut takes away are none, and a hiss that a tone lifts is one. Tamed, it keeps to the ceiling in the render. */
    public function testPeaksOfAClipWithAColourAreThoseThatAreHeard(): void
    {
        $sound = array_fill(0, self::FRAMES, 0.0);
        for ($i = 0; $i < 9_600; ++$i) {
            $sound[48_000 + $i] = 0.6 * sin(2 * \M_PI * 40.0 * $i / 48_000) * sin(\M_PI * $i / 9_600);
            $sound[200_000 + $i] = 0.2 * sin(2 * \M_PI * 6_000.0 * $i / 48_000) * sin(\M_PI * $i / 9_600);
        }
        $input = Sound::pcm16($sound, $sound);
        $where = static fn (Mix $mix, float $ceiling): array => array_values(array_unique(array_map(static fn (Peak $p): int => intdiv($p->notch->at, 48_000), self::peaks($mix, $input, $ceiling))));
        self::assertSame([1], $where(self::mix(), -12.0));
        $coloured = Mixes::edited(self::mix(), ['edit' => 'set-clip-colours', 'colours' => [['clip' => 'c', 'colour' => ['lowCut' => ['hertz' => 160, 'slope' => 24], 'tone' => array_map(static fn (int $hertz): array => ['hertz' => $hertz, 'db' => 5_000 === $hertz ? 6 : 0], [180, 500, 2_000, 5_000])]]]]);
        self::assertSame([4], $where($coloured, -12.0));
        $tamed = $coloured;
        foreach (self::peaks($coloured, $input, -12.0) as $peak) {
            $tamed = Mixes::edited($tamed, ['edit' => 'tame', 'notches' => [['clip' => 'c', 'at' => $peak->notch->at, 'by' => $peak->notch->by, 'before' => $peak->notch->before, 'after' => $peak->notch->after, 'hold' => $peak->notch->hold]]]);
        }
        self::assertGreaterThan(-10.5, 20 * log10(max(array_map(abs(...), self::render($coloured, $input)))));
        self::assertEqualsWithDelta(-12.0, 20 * log10(max(array_map(abs(...), self::render($tamed, $input)))), 0.15);
    }

    public function testOnlyTheAskedPartIsSearched(): void
    {
        $input = self::slams([48_000, 400_000]);
        self::assertCount(1, array_unique(array_map(static fn (Peak $p): int => intdiv($p->notch->at, 100_000), self::peaks(self::mix(), $input, -9.0, Span::of(0, 200_000)))));
        self::assertSame([], self::peaks(self::mix(), $input, -9.0, Span::of(100_000, 200_000)));
    }

    public function testACeilingBelowAllTheSoundIsRefused(): void
    {
        $mix = Mix::of(48_000, FrameRate::F25, [self::source(70 * 48_000)], [Track::named('t', 'T', Stem::Speech)]);
        $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => 's', 'at' => 0]);
        $outline = pack('v*', ...array_fill(0, 70 * 50, 20_000));
        $this->expectException(InvalidCeiling::class);
        Peaks::above(GainSchedule::parts($mix, $mix->clip('c'), Fades::of($mix->track('t'))), $outline, Sound::stream('', 2, 16), Span::of(0, 70 * 48_000), -20.0, 48_000)->found();
    }

    public function testClipsLookedThroughTogetherAreRefusedTogether(): void
    {
        $mix = Mix::of(48_000, FrameRate::F25, [self::source(25 * 48_000)], [Track::named('t', 'T', Stem::Speech)]);
        $mix = Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => 's', 'at' => 0]);
        $outline = pack('v*', ...array_fill(0, 25 * 50, 20_000));
        $search = Peaks::above(GainSchedule::parts($mix, $mix->clip('c'), Fades::of($mix->track('t'))), $outline, Sound::stream('', 2, 16), Span::of(0, 25 * 48_000), -20.0, 48_000);
        Peaks::areFew([$search, $search]);
        Peaks::areFew([]);
        $this->expectException(InvalidCeiling::class);
        Peaks::areFew([$search, $search, $search]);
    }

    /** @return list<Peak> */
    private static function peaks(Mix $mix, string $input, float $ceiling, ?Span $span = null): array
    {
        $waveform = Sound::memory();
        $measurer = new SourceMeasurer(PcmFormat::of(2, 16), 48_000, Sound::memory(), $waveform);
        $measurer->push($input);
        $measurer->finish();
        rewind($waveform);
        $levels = array_map(static fn (): mixed => Sound::memory(), Overview::BINS_PER_POINT);
        Overview::write($waveform, 2, $levels);
        $clip = $mix->clip('c');

        return Peaks::above(GainSchedule::parts($mix, $clip, Fades::of($mix->trackOf('c'))), Sound::contents($levels[1]), Sound::stream($input, 2, 16), $span ?? $clip->heard(), $ceiling, 48_000, $clip->colour->biquads(48_000))->found();
    }

    /**
     * @param list<int> $at
     *
     * @return string quiet noise with bursts that ring out over a fifth of a second, as slammed hatches do
     */
    private static function slams(array $at): string
    {
        $random = new Random(8);
        $left = $right = [];
        for ($i = 0; $i < self::FRAMES; ++$i) {
            $left[] = $random->float(-0.05, 0.05);
            $right[] = $random->float(-0.05, 0.05);
        }
        foreach ($at as $n => $start) {
            for ($i = 0; $i < 9600 && $start + $i < self::FRAMES; ++$i) {
                $ring = 0.8 * exp(-$i / 1500) * sin($i / (9 + $n));
                $left[$start + $i] = max(-1.0, min(1.0, $left[$start + $i] + $ring));
                $right[$start + $i] = max(-1.0, min(1.0, $right[$start + $i] - 0.6 * $ring));
            }
        }

        return Sound::pcm16($left, $right);
    }

    private static function source(int $frames = self::FRAMES): Source
    {
        return new Source('s', 'Source', $frames, 2, Decibels::unchanged());
    }

    private static function mix(): Mix
    {
        $mix = Mix::of(48_000, FrameRate::F25, [self::source()], [Track::named('t', 'T', Stem::Effects)]);

        return Mixes::edited($mix, ['edit' => 'add-clip', 'track' => 't', 'clip' => 'c', 'source' => 's', 'at' => 0]);
    }

    /** @return list<float> */
    private static function render(Mix $mix, string $input): array
    {
        $all = [];
        foreach ((new Renderer($mix, ['s' => Sound::stream($input, 2, 16)]))->render(Span::of(0, $mix->length())) as $samples) {
            array_push($all, ...$samples);
        }

        return $all;
    }
}
