<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\BandLevel;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Loudness\Predicted;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Noise;
use Wattage\Tests\support\Random;
use Wattage\Tests\support\Scene;
use Wattage\Tests\support\Voice;

/** What filters do to loudness and bands is predicted from what sources were measured at; here against their renders. */
final class FilteringTest extends TestCase
{
    private const SECONDS = 10;

    private static ?Scene $scene = null;

    public static function tearDownAfterClass(): void
    {
        self::$scene = null;
    }

    /** @param list<array<string, mixed>> $edits */
    #[DataProvider('filters')]
    public function testTheLoudnessOfFilteredSoundIsPredicted(array $edits, float $within): void
    {
        $scene = self::scene();
        foreach (['voice', 'music', 'traffic'] as $track) {
            $mix = $scene->mix;
            foreach ($edits as $edit) {
                /** @var array<string, mixed> $of */
                $of = json_decode(str_replace('TRACK', $track, (string) json_encode($edit)), true);
                $mix = Mixes::edited($mix, $of);
            }
            $rendered = Predicted::of(Heard::in($scene->rendered($mix, $track))->tenths->powers[0], 0.0)->integrated;
            $before = Predicted::of(Heard::in($scene->rendered($scene->mix, $track))->tenths->powers[0], 0.0)->integrated;
            $figures = $scene->figures($mix)->track($track);
            // The left side alone is 3 dB below both.
            self::assertEqualsWithDelta($rendered, ($figures->integrated ?? 0.0) - 3.01, $within, "{$track}, which was {$before}");
            $peak = max(array_map(abs(...), $scene->rendered($mix, $track)));
            self::assertGreaterThanOrEqual(20.0 * log10($peak) - 0.01, $figures->peak);
        }
    }

    /** @return iterable<string, array{list<array<string, mixed>>, float}> */
    public static function filters(): iterable
    {
        $tone = static fn (float ...$db): array => ['tone' => array_map(static fn (float $hertz, float $one): array => ['hertz' => $hertz, 'db' => $one], [180.0, 500.0, 2000.0, 5000.0], $db)];
        yield 'a low cut on the track' => [[['edit' => 'set-track-colour', 'track' => 'TRACK', 'colour' => ['lowCut' => ['hertz' => 200, 'slope' => 24]]]], 0.8];
        yield 'tone on the clip' => [[['edit' => 'set-clip-colours', 'colours' => [['clip' => 'c-TRACK', 'colour' => $tone(-6.0, -4.0, 5.0, 6.0)]]]], 0.8];
        yield 'the other way' => [[['edit' => 'set-clip-colours', 'colours' => [['clip' => 'c-TRACK', 'colour' => $tone(6.0, 3.0, -6.0, -6.0)]]]], 0.6];
        yield 'the band of speech' => [[['edit' => 'set-range', 'track' => 'TRACK', 'lane' => 'band', 'from' => 48_000, 'to' => 480_000, 'level' => -12, 'ramp' => 4800]], 0.8];
        yield 'all of it' => [[
            ['edit' => 'set-track-colour', 'track' => 'TRACK', 'colour' => ['lowCut' => ['hertz' => 100]]],
            ['edit' => 'set-clip-colours', 'colours' => [['clip' => 'c-TRACK', 'colour' => $tone(0.0, 4.0, 0.0, -3.0)]]],
            ['edit' => 'dip-range', 'track' => 'TRACK', 'lane' => 'band', 'from' => 96_000, 'to' => 300_000, 'by' => -20, 'ramp' => 20_000],
        ], 0.8];
    }

    /** The third octaves of a filtered track are those of its render: medians of each band within 1 dB where it stands out. */
    public function testItsBandsAreThoseOfItsRender(): void
    {
        $scene = self::scene();
        $mix = Mixes::edited($scene->mix, ['edit' => 'set-clip-colours', 'colours' => [['clip' => 'c-traffic', 'colour' => ['lowCut' => ['hertz' => 300, 'slope' => 24], 'tone' => [['hertz' => 180, 'db' => 0], ['hertz' => 500, 'db' => 0], ['hertz' => 2000, 'db' => 6], ['hertz' => 5000, 'db' => -6]]]]]]);
        $mix = Mixes::edited($mix, ['edit' => 'set-range', 'track' => 'traffic', 'lane' => 'band', 'from' => 240_000, 'to' => 480_000, 'level' => -10, 'ramp' => 2400]);
        $said = self::means($scene->bands($mix)['traffic']);
        $rendered = self::means(Heard::in($scene->rendered($mix, 'traffic'))->bands->together());
        foreach ($rendered as $i => $db) {
            // Both sides together are 3 dB above one.
            self::assertEqualsWithDelta($db + 3.01, $said[$i], 1.5, "{$i}");
        }
    }

    /** @return list<float> dB of each band in the first and in the second half */
    private static function means(string $rows): array
    {
        $powers = BandLevel::powers();
        $means = [];
        foreach ([[5, 45], [55, 95]] as [$from, $to]) {
            for ($band = 0; $band < ThirdOctaves::COUNT; ++$band) {
                $sum = 0.0;
                for ($k = $from; $k < $to; ++$k) {
                    $sum += $powers[\ord($rows[$k * ThirdOctaves::COUNT + $band])];
                }
                $means[] = 10.0 * log10($sum / ($to - $from));
            }
        }

        return $means;
    }

    private static function scene(): Scene
    {
        $frames = self::SECONDS * Heard::RATE;
        $noise = new Noise(new Random(3));

        return self::$scene ??= new Scene([
            'voice' => Voice::saying([[0.3, 9.7]], self::SECONDS, 0.05, 3), 'music' => $noise->music($frames, 0.05), 'traffic' => $noise->steady('traffic', $frames, 0.05),
        ], ['voice' => [[0.3, 9.7]]]);
    }
}
