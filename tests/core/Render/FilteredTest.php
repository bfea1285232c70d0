<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Render;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Edit\Layout\Split;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\LowCut;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Render\Renderer;
use Wattage\Core\Signal\Pan;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Clip;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Source;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;
use Wattage\Tests\support\Sound;

/** Tracks and clips with filters: what the renderer makes of them, against ffmpeg and against itself in other ways. */
final class FilteredTest extends TestCase
{
    private const FRAMES = 48_000;
    private string $sound;

    protected function setUp(): void
    {
        $this->sound = Sound::pcm16(self::sum(Sound::sine(60, 0.3, self::FRAMES), Sound::sine(1100, 0.2, self::FRAMES)), self::sum(Sound::sine(300, 0.2, self::FRAMES), Sound::sine(7000, 0.2, self::FRAMES)));
    }

    /** The closed formula x − (1 − g)·B(x), from ffmpeg's equalisers and its expression evaluator. */
    public function testABandThatGivesWayIsWhatFfmpegMakesOfTheFormula(): void
    {
        $band = Curve::of([new Keyframe(0, Decibels::unchanged(), Ramp::line()), new Keyframe(24_000, Decibels::of(-15.0), Ramp::line())]);
        $ours = $this->rendered($this->track()->withBand(new Ducking($band)));
        $g = 'pow(10,-15*min(n,24000)/24000/20)';
        $graph = '[0]aformat=sample_fmts=dblp:channel_layouts=stereo,asplit[a][b];[b]equalizer=f=900:t=q:w=1.2:g=-24:r=f64,equalizer=f=2250:t=q:w=1.2:g=-24:r=f64[n];'
            ."[a][n]amerge=inputs=2,aformat=sample_fmts=dblp,aeval=exprs='val(2)+{$g}*(val(0)-val(2))|val(3)+{$g}*(val(1)-val(3))':c=stereo[y]";
        $theirs = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-f', 's16le', '-ar', '48000', '-ac', '2', '-i', Sound::file($this->sound), '-filter_complex', $graph, '-map', '[y]', '-f', 'f32le', '-']));
        self::assertLessThan(-110.0, Sound::residualDbfs($theirs, $ours));
    }

    public function testALaneThatStandsAtNothingChangesNothing(): void
    {
        $still = Curve::of([new Keyframe(0, Decibels::unchanged(), Ramp::line()), new Keyframe(9_000, Decibels::unchanged(), Ramp::line())]);
        self::assertLessThan(-180.0, Sound::residualDbfs($this->rendered($this->track()), $this->rendered($this->track()->withBand(new Ducking($still)))));
    }

    /** Faders, pans and lanes of a filtered track act as they do on others: a tone that is hardly there changes nothing. */
    public function testFadersPansAndLanesAreThoseOfAnyTrack(): void
    {
        $high = Sound::pcm16(Sound::sine(9_000, 0.3, self::FRAMES), Sound::sine(11_000, 0.2, self::FRAMES));
        $curve = Curve::of([new Keyframe(2_000, Decibels::of(-3.0), Ramp::smooth()), new Keyframe(30_000, Decibels::of(-20.0), Ramp::line())]);
        $plain = $this->track()->withFader(Decibels::of(-4.0))->withLanes((new Lanes($curve))->withPan(new PanLane([[1_000, -0.8], [40_000, 0.7]])))->withDucking(new Ducking($curve->shifted(1_000)));
        foreach ([$plain, $plain->withLanes(Lanes::none())->withPan(0.4)] as $track) {
            $cut = $track->withColour(new Colour(null, new Tone([[100.0, 1e-9], [600.0, 0.0], [2_000.0, 0.0], [6_000.0, 0.0]])));
            self::assertLessThan(-110.0, Sound::residualDbfs($this->rendered($track, $high), $this->rendered($cut, $high)));
        }
    }

    /** A clip that does not give way keeps its band, and still goes through the colour of its track. */
    public function testAClipThatDoesNotGiveWayKeepsItsBand(): void
    {
        $down = new Ducking(Curve::of([new Keyframe(0, Decibels::of(-20.0), Ramp::line())]));
        $track = $this->track();
        $kept = $track->withClip($track->clips['c']->withPartInDucking(true, false))->withBand($down);
        self::assertLessThan(-180.0, Sound::residualDbfs($this->rendered($track), $this->rendered($kept)));
        $cut = new Colour(new LowCut(200.0, 24));
        self::assertLessThan(-180.0, Sound::residualDbfs($this->rendered($track->withColour($cut)), $this->rendered($kept->withColour($cut))));
    }

    /** The same filters on the only clip and on its track are the same sound. */
    public function testAColourOfTheClipIsThatOfItsTrack(): void
    {
        $colour = new Colour(new LowCut(90.0, 24), new Tone([[150.0, -4.0], [600.0, 3.0], [2_000.0, 0.0], [6_000.0, 5.0]]));
        $track = $this->track();
        self::assertLessThan(-180.0, Sound::residualDbfs($this->rendered($track->withColour($colour)), $this->rendered($track->withClip($track->clips['c']->withColour($colour)))));
    }

    /** Source: a split must not be heard, wherever it is. */
    public function testASplitInFilteredSoundIsNotHeard(): void
    {
        $colour = new Colour(new LowCut(100.0, 24), new Tone([[150.0, 6.0], [600.0, 3.0], [2_000.0, 0.0], [6_000.0, 5.0]]));
        $track = $this->track();
        $mix = $this->mix($track->withClip($track->clips['c']->withColour($colour)));
        $split = (new Split([['c', 20_011]]))->apply($mix);
        self::assertLessThan(-150.0, Sound::residualDbfs($this->samples($mix), $this->samples($split)));
    }

    /** Wherever rendering begins, the filters have heard what came before. */
    public function testAnySpanIsThatPartOfTheWhole(): void
    {
        $band = new Ducking(Curve::of([new Keyframe(10_000, Decibels::of(-3.0), Ramp::line()), new Keyframe(40_000, Decibels::of(-18.0), Ramp::line())]));
        $track = $this->track()->withBand($band)->withColour(new Colour(new LowCut(40.0, 24)));
        $mix = $this->mix($track->withClip($track->clips['c']->withColour(new Colour(new LowCut(120.0)))));
        $whole = $this->samples($mix);
        $parts = [...$this->samples($mix, Span::of(31_000, 33_000)), ...$this->samples($mix, Span::of(12_345, 20_000))];
        self::assertLessThan(-150.0, Sound::residualDbfs([...\array_slice($whole, 62_000, 4_000), ...\array_slice($whole, 24_690, 15_310)], $parts));
    }

    public function testAColouredMonoClipPansAsAnyOther(): void
    {
        $mono = Sound::pcm16(Sound::sine(900, 0.5, self::FRAMES));
        $stereo = Sound::pcm16(Sound::sine(900, 0.5, self::FRAMES), Sound::sine(900, 0.5, self::FRAMES));
        $track = $this->track()->withPan(0.4);
        $track = $track->withClip($track->clips['c']->withColour(new Colour(new LowCut(150.0))));
        self::assertLessThan(-140.0, Sound::residualDbfs($this->rendered($track, $stereo), $this->rendered($track, $mono, 1)));
        self::assertNotSame(1.0, Pan::at(0.4)->leftToLeft);
    }

    /** A clip that is shorter than what its filters remember, at the very end of its source, and one of nothing: no sample that is no number, none where nothing is. */
    public function testAClipShorterThanItsFiltersRememberIsSoundAndNothingElse(): void
    {
        $colour = new Colour(new LowCut(20.0, 24), new Tone([[40.0, 6.0], [600.0, 0.0], [2_000.0, 0.0], [16_000.0, -6.0]]));
        $short = new Clip('c', 's', 'Clip', 2_000, self::FRAMES - 7, 7, Decibels::unchanged(), Curve::flat(), colour: $colour);
        $samples = $this->rendered(Track::named('t', 'Track', Stem::Music)->withClip($short)->withColour($colour));
        self::assertCount(2 * 2_007, $samples);
        self::assertSame([], array_filter($samples, static fn (float $x): bool => !is_finite($x) || abs($x) > 2.0));
        self::assertSame(0.0, max(array_map(abs(...), \array_slice($samples, 0, 4_000))));
        self::assertGreaterThan(0.0, max(array_map(abs(...), \array_slice($samples, 4_000))));
        $silent = $this->rendered($this->track()->withColour($colour)->withBand(new Ducking(Curve::of([new Keyframe(0, Decibels::silence(), Ramp::hold())]))), Sound::pcm16(array_fill(0, self::FRAMES, 0.0), array_fill(0, self::FRAMES, 0.0)));
        self::assertSame(0.0, max(array_map(abs(...), $silent)));
    }

    private function track(): Track
    {
        return Track::named('t', 'Track', Stem::Music)->withClip(new Clip('c', 's', 'Clip', 0, 0, self::FRAMES, Decibels::unchanged(), Curve::flat()));
    }

    private function mix(Track $track, int $channels = 2): Mix
    {
        return Mix::of(48_000, FrameRate::F25, [new Source('s', 'Sound', self::FRAMES, $channels, Decibels::unchanged())], [$track]);
    }

    /** @return list<float> */
    private function rendered(Track $track, ?string $sound = null, int $channels = 2): array
    {
        return $this->samples($this->mix($track, $channels), null, $sound, $channels);
    }

    /** @return list<float> */
    private function samples(Mix $mix, ?Span $span = null, ?string $sound = null, int $channels = 2): array
    {
        $all = [];
        foreach ((new Renderer($mix, ['s' => Sound::stream($sound ?? $this->sound, $channels, 16)]))->render($span ?? Span::of(0, $mix->length())) as $samples) {
            array_push($all, ...$samples);
        }

        return $all;
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     *
     * @return list<float>
     */
    private static function sum(array $a, array $b): array
    {
        return array_map(static fn (float $x, float $y): float => $x + $y, $a, $b);
    }
}
