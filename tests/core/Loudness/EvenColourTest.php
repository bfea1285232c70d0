<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Interchange\ColourDocument;
use Wattage\Core\Loudness\EvenColour;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Heard;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Scene;
use Wattage\Tests\support\Sound;
use Wattage\Tests\support\Voice;

/** The same voice, boomy and near, and thin and far: filtered by sox (Debian), which knows nothing of this project. */
final class EvenColourTest extends TestCase
{
    private const TIMES = [[0.3, 7.7]];

    /** One tone brings the two at least twice as close, in the render as in the figures. */
    public function testABoomyNearVoiceAndAThinFarOneMeet(): void
    {
        $voice = Voice::saying(self::TIMES, 8.0, 0.05, 3);
        $scene = new Scene(['near' => self::through($voice, 'bass', '+7', '200'), 'far' => self::through($voice, 'bass', '-5', '250', 'treble', '+4', '4000')], ['near' => self::TIMES, 'far' => self::TIMES]);
        $now = self::spectrum($scene, $scene->mix, 'far');
        $like = self::spectrum($scene, $scene->mix, 'near');
        [$tone, $after] = EvenColour::fit($now, $like, Heard::RATE);
        $off = EvenColour::between($now, $like);
        self::assertGreaterThan(2.5, $off);
        self::assertLessThan($off / 2, EvenColour::between($after, $like));
        foreach ($tone->parts as [, $db]) {
            self::assertLessThanOrEqual(Tone::MOST, abs($db));
        }
        $mix = Mixes::edited($scene->mix, ['edit' => 'set-clip-colours', 'colours' => [['clip' => 'c-far', 'colour' => ColourDocument::toArray(new Colour(null, $tone))]]]);
        $rendered = self::spectrum($scene, $mix, 'far', Heard::in($scene->rendered($mix, 'far')));
        self::assertLessThan($off / 2, EvenColour::between($rendered, $like));
        self::assertLessThan(1.0, EvenColour::between($rendered, $after));
    }

    public function testWhatIsAlikeStaysAndSilenceHasNoColour(): void
    {
        $scene = new Scene(['a' => Voice::saying(self::TIMES, 8.0, 0.05, 3), 'b' => array_fill(0, 48_000, 0.0)], ['a' => self::TIMES]);
        $now = self::spectrum($scene, $scene->mix, 'a');
        [$tone, $after] = EvenColour::fit($now, $now, Heard::RATE);
        self::assertSame([0.0, 0.0, 0.0, 0.0], array_column($tone->parts, 1));
        self::assertEqualsWithDelta($now, $after, 1e-6);
        self::assertNull(EvenColour::spectrum($scene->mix, $scene->mix->clip('c-b'), $scene->tenths('b')->bands() ?? self::fail(), Colour::none()));
    }

    /** @return list<float> */
    private static function spectrum(Scene $scene, Mix $mix, string $track, ?Heard $heard = null): array
    {
        $bands = $heard->bands ?? $scene->tenths($track)->bands() ?? self::fail();

        return EvenColour::spectrum($mix, $mix->clip("c-{$track}"), $bands, Colour::none()) ?? self::fail();
    }

    /**
     * @param list<float> $sound
     *
     * @return list<float>
     */
    private static function through(array $sound, string ...$effects): array
    {
        $raw = ['-t', 'raw', '-r', '48000', '-c', '1'];

        return Sound::floats(Sound::run(['sox', '-D', ...$raw, '-e', 'signed', '-b', '16', Sound::file(Sound::pcm16(array_map(static fn (float $x): float => 0.5 * $x, $sound))), ...$raw, '-e', 'float', '-b', '32', '-', ...array_values($effects)]));
    }
}
