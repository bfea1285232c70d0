<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\App\View\StretchView;
use Wattage\Core\Curve\Curve;
use Wattage\Core\Curve\Keyframe;
use Wattage\Core\Curve\Ramp;
use Wattage\Core\Curve\RampKind;
use Wattage\Core\Curve\RangeChange;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Fade\Fade;
use Wattage\Core\Fade\FadeRamp;
use Wattage\Core\Fade\FadeShape;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\Duration;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Timecode;
use Wattage\Core\Timeline\PanLane;

/** What the core makes of what the screen guesses before it is answered; web/src/preview is tested against it. Written to its fixtures.json. */
final class PreviewFixtures
{
    public const FILE = __DIR__.'/../../web/src/preview/fixtures.json';
    private const S = Mixes::SECOND;

    public static function written(): string
    {
        $all = ['curves' => self::curves(), 'fades' => self::fades(), 'dips' => self::dips(), 'bounds' => self::bounds(), 'pans' => self::pans(), 'times' => self::times(), 'frames' => self::frames()];

        return json_encode($all, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)."\n";
    }

    /** @return list<array<string, mixed>> curves of every kind of ramp, with the core's schedule of them and its levels, dB */
    private static function curves(): array
    {
        $cases = [];
        foreach (self::ramps() as $name => $ramp) {
            $curve = Curve::of([new Keyframe(1000, Decibels::of(-3.0), $ramp), new Keyframe(25_001, Decibels::of(-20.0), $ramp), new Keyframe(60_000, Decibels::of(4.5), Ramp::line())]);
            $stretches = $curve->stretchesWithin(Span::of(0, 70_000));
            $at = range(0, 69_999, 1777);
            $cases[] = [
                'name' => $name,
                'curve' => CurveDocument::toArray($curve),
                'schedule' => array_map(StretchView::of(...), $stretches),
                'levels' => array_map(static fn (int $t): array => [$t, round($curve->levelAt($t)->db, 6)], $at),
            ];
        }

        return $cases;
    }

    /** @return array<string, Ramp> */
    private static function ramps(): array
    {
        $ramps = [];
        foreach (RampKind::cases() as $kind) {
            $ramps[$kind->value] = Ramp::of($kind);
        }

        return [...$ramps, 'smooth, late' => Ramp::smooth(0.7, 0.1), 'smooth, cut' => Ramp::smooth(0.5, 0.5, 0.2, 0.9), 'smooth, tilted' => Ramp::smooth(0.4, 0.4, 0.0, 1.0, -3.0)];
    }

    /** @return list<array{string, float, float, float, float}> shape, window, way along it, gain */
    private static function fades(): array
    {
        $gains = [];
        foreach (FadeShape::cases() as $shape) {
            foreach ([Fade::of(1000, $shape), Fade::of(1000, $shape, 0.25, 0.75)] as $fade) {
                foreach ([0, 1, 250, 500, 999] as $at) {
                    $gains[] = [$shape->value, $fade->windowFrom, $fade->windowTo, $at / 1000, (new FadeRamp(0, 1000, $fade, false))->gainAt($at)];
                }
            }
        }

        return $gains;
    }

    /** @return list<array<string, mixed>> what a dip makes of curves without bends, in or around the range */
    private static function dips(): array
    {
        $curves = [
            'flat' => Curve::flat(),
            'a step' => Curve::of([new Keyframe(self::S, Decibels::of(-6.0), Ramp::hold()), new Keyframe(5 * self::S, Decibels::of(-1.0), Ramp::line())]),
            'a slope' => Curve::of([new Keyframe(0, Decibels::of(-12.0), Ramp::line()), new Keyframe(10 * self::S, Decibels::of(0.0), Ramp::line())]),
        ];
        $cases = [];
        foreach ($curves as $name => $curve) {
            foreach ([[-11.0, 24_000, false], [3.0, 24_000, true], [-6.0, 0, false]] as [$by, $ramp, $inside]) {
                $dipped = (new RangeChange($by, $ramp, $inside))->of($curve, Span::of(3 * self::S, 7 * self::S), Span::of(0, 10 * self::S));
                $cases[] = [
                    'name' => "{$name}, {$by} dB, ".($inside ? 'inside' : 'around'),
                    'curve' => CurveDocument::toArray($curve),
                    'from' => 3 * self::S, 'to' => 7 * self::S, 'by' => $by, 'ramp' => $ramp, 'inside' => $inside,
                    'levels' => array_map(static fn (int $t): array => [$t, round($dipped->levelAt($t)->db, 6)], range(0, 10 * self::S - 1, 7001)),
                ];
            }
        }

        return $cases;
    }

    /** @return list<array<string, mixed>> how far keyframes go when they are sent as far as can be */
    private static function bounds(): array
    {
        $mix = Mixes::livedIn();
        $bed = $mix->clip('bed');
        $all = array_map(static fn (Keyframe $k): int => $k->position, $bed->curve->keyframes);
        $cases = [];
        foreach ([[$all[0]], [$all[1]], [$all[1], $all[2]], $all, [$all[3]]] as $chosen) {
            $moved = static fn (int $later): array => array_map(
                static fn (Keyframe $k): int => $k->position,
                (new EditReader($mix))->read(['edit' => 'move-keyframes', 'clip' => 'bed', 'keyframes' => $chosen, 'later' => $later, 'by' => 0])->apply($mix)->clip('bed')->curve->keyframes,
            );
            $i = (int) array_search($chosen[0], $all, true);
            $cases[] = ['curve' => CurveDocument::toArray($bed->curve), 'from' => $bed->in, 'to' => $bed->in + $bed->length, 'chosen' => $chosen, 'earliest' => $moved(-100 * self::S)[$i] - $chosen[0], 'latest' => $moved(100 * self::S)[$i] - $chosen[0]];
        }

        return $cases;
    }

    /** @return list<array<string, mixed>> */
    private static function pans(): array
    {
        $points = [[24_000, -0.5], [96_000, 0.8], [96_480, 0.8], [200_000, 0.0]];
        $lane = new PanLane($points);

        return [['points' => array_map(static fn (array $p): array => ['at' => $p[0], 'pan' => $p[1]], $points), 'pans' => array_map(static fn (int $at): array => [$at, $lane->at($at)], range(0, 220_000, 9973))]];
    }

    /** @param callable(): int $of */
    private static function read(callable $of): ?int
    {
        try {
            return $of();
        } catch (Problem) {
            return null;
        }
    }

    /** @return list<array{string, string, string, ?int}> moment or length, as typed, frame rate, samples; null where it is none */
    private static function times(): array
    {
        $read = self::read(...);
        $cases = [];
        foreach (FrameRate::cases() as $frames) {
            foreach (['0:58.2', '1:02:03.5', '58', '3,5', '00:00:58:05', '00:01:00:00', '00:01:00;02', '00:10:00:00', '01:00:00:12', '00:00:01:24', '00:00:01:59', 'soon', '0:75:00:00'] as $text) {
                $cases[] = ['moment', $text, $frames->value, $read(static fn (): int => Timecode::parse($text, 48_000, $frames))];
            }
            foreach (['0.4', '0,4 s', '250 ms', '12f', '1 frame', '30 frames', '.5', 'short', '-1'] as $text) {
                $cases[] = ['length', $text, $frames->value, $read(static fn (): int => Duration::parse($text, 48_000, $frames))];
            }
        }

        return $cases;
    }

    /** @return list<array{string, int, int, string}> frame rate, sample, frame at it, timecode */
    private static function frames(): array
    {
        $cases = [];
        foreach (FrameRate::cases() as $frames) {
            foreach ([0, 1, 1920, 47_999, 48_000, 2_879_999, 2_880_000, 2_882_880, 2_884_482, 28_800_000, 28_828_800, 172_800_000, 345_600_001] as $sample) {
                $cases[] = [$frames->value, $sample, $frames->frameAt($sample, 48_000), Timecode::format($sample, 48_000, $frames)];
            }
        }

        return $cases;
    }
}
