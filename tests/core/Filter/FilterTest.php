<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Filter;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Filter\Biquad;
use Wattage\Core\Filter\Cascade;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\InvalidFilter;
use Wattage\Core\Filter\LowCut;
use Wattage\Core\Filter\Response;
use Wattage\Core\Filter\SpeechBand;
use Wattage\Core\Filter\Tone;
use Wattage\Tests\support\Sound;

final class FilterTest extends TestCase
{
    /** Against ffmpeg's own filters (Debian), which follow the same published equations. */
    #[DataProvider('filters')]
    public function testAFilterMakesTheSamplesThatFfmpegMakes(Biquad $ours, string $theirs): void
    {
        $bytes = Sound::noise(7, 4 * 24_000);
        $heard = (new Cascade([$ours]))->stereo(self::stereo($bytes));
        $filtered = Sound::floats(Sound::run(['ffmpeg', '-v', 'error', '-f', 's16le', '-ar', '48000', '-ac', '2', '-i', Sound::file($bytes), '-af', "volume=0.25:precision=double,{$theirs}:r=f64", '-f', 'f32le', '-']));
        self::assertLessThan(-120.0, Sound::residualDbfs($filtered, $heard));
    }

    /** @return iterable<string, array{Biquad, string}> */
    public static function filters(): iterable
    {
        yield 'a low cut' => [Biquad::highPass(80.0, \M_SQRT1_2, 48_000), 'highpass=f=80:t=q:w=0.70710678118655'];
        yield 'a bell up' => [Biquad::peaking(500.0, 0.9, 4.0, 48_000), 'equalizer=f=500:t=q:w=0.9:g=4'];
        yield 'a bell far down' => [Biquad::peaking(900.0, 1.2, -24.0, 48_000), 'equalizer=f=900:t=q:w=1.2:g=-24'];
        yield 'a low shelf' => [Biquad::lowShelf(180.0, -5.0, 48_000), 'lowshelf=f=180:t=q:w=0.70710678118655:g=-5'];
        yield 'a high shelf' => [Biquad::highShelf(5000.0, 6.0, 48_000), 'highshelf=f=5000:t=q:w=0.70710678118655:g=6'];
    }

    /** Source: Butterworth's definition; half the power at the corner, and the slope far below it. */
    #[DataProvider('slopes')]
    public function testALowCutIsHalfAtItsCornerAndFallsAsItSays(int $slope, int $rate): void
    {
        $cut = (new Colour(new LowCut(200.0, $slope)))->biquads($rate);
        $db = static fn (float $hertz): float => 10.0 * log10(Response::power($cut, $hertz, $rate));
        self::assertEqualsWithDelta(-3.0103, $db(200.0), 1e-6);
        self::assertEqualsWithDelta(-$slope, $db(10.0) - $db(20.0), 0.1);
        self::assertEqualsWithDelta(0.0, $db(5000.0), 0.001);
    }

    /** @return list<array{int, int}> */
    public static function slopes(): array
    {
        return [[12, 48_000], [24, 48_000], [12, 96_000], [24, 96_000]];
    }

    /** What is asked for within the band, nothing far beside it, and never anything louder. */
    #[DataProvider('depths')]
    public function testTheBandOfSpeechGivesWayAndNothingIsLifted(float $depth, float $within): void
    {
        $g = 10.0 ** ($depth / 20.0);
        foreach (range(20, 20_000, 20) as $hertz) {
            [$re, $im] = Response::of(SpeechBand::without(48_000), (float) $hertz, 48_000);
            $db = 10.0 * log10(($g + (1.0 - $g) * $re) ** 2 + ((1.0 - $g) * $im) ** 2);
            self::assertLessThan(1e-9, $db);
            if ($hertz <= 120 || $hertz >= 12_600) {
                self::assertGreaterThan(-1.1, $db, "{$hertz} Hz");
            }
            if ($hertz >= 500 && $hertz <= 3200) {
                self::assertEqualsWithDelta($depth, $db, $within, "{$hertz} Hz");
            }
        }
    }

    /** @return list<array{float, float}> */
    public static function depths(): array
    {
        return [[-6.0, 1.0], [-12.0, 2.1], [-18.0, 7.0]];
    }

    public function testPiecesJoinWithoutASeam(): void
    {
        $biquads = [...(new Colour(new LowCut(80.0, 24)))->biquads(48_000), ...SpeechBand::without(48_000)];
        $sound = self::stereo(Sound::noise(3, 4 * 9_600));
        $whole = (new Cascade($biquads))->stereo($sound);
        $cascade = new Cascade($biquads);
        $pieces = [];
        foreach (array_chunk($sound, 2 * 1_234) as $piece) {
            array_push($pieces, ...$cascade->stereo($piece));
        }
        self::assertSame($whole, $pieces);
        $mono = array_map(static fn (int $i): float => $sound[2 * $i], range(0, 9_599));
        self::assertSame(array_map(static fn (int $i): float => $whole[2 * $i], range(0, 9_599)), (new Cascade($biquads))->mono($mono));
    }

    /** @param callable(): mixed $make */
    #[DataProvider('wrong')]
    public function testWhatCannotBeIsRefusedByName(callable $make, string $field): void
    {
        try {
            $make();
            self::fail('It was taken.');
        } catch (InvalidFilter $problem) {
            self::assertSame($field, $problem->field());
        }
    }

    /** @return iterable<string, array{callable(): mixed, string}> */
    public static function wrong(): iterable
    {
        yield 'too low' => [static fn () => new LowCut(19.9), 'hertz'];
        yield 'too high' => [static fn () => new LowCut(300.1), 'hertz'];
        yield 'a slope that is not' => [static fn () => new LowCut(100.0, 18), 'slope'];
        yield 'three parts' => [static fn () => new Tone([[100.0, 0.0], [200.0, 0.0], [300.0, 0.0]]), 'tone'];
        yield 'beyond half the rate' => [static fn () => new Tone([[100.0, 0.0], [200.0, 0.0], [300.0, 0.0], [24_000.0, 0.0]]), 'hertz'];
        yield 'not rising' => [static fn () => new Tone([[100.0, 0.0], [900.0, 0.0], [300.0, 0.0], [4_000.0, 0.0]]), 'hertz'];
        yield 'too much' => [static fn () => new Tone([[100.0, 0.0], [200.0, 6.5], [300.0, 0.0], [4_000.0, 0.0]]), 'db'];
    }

    /** @return list<float> at a quarter of full scale, so that nothing of it is clipped */
    private static function stereo(string $bytes): array
    {
        /** @var array<int, int> $words */
        $words = unpack('s*', $bytes);

        return array_map(static fn (int $word): float => 0.25 * $word / 32768.0, array_values($words));
    }
}
