<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\Gating;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;
use Wattage\Tests\support\Demo;
use Wattage\Tests\support\Mixes;
use Wattage\Tests\support\Sound;

/** What is worked out from measured sources, against the loudness of the sound that is really rendered; the demo has a test of its own. */
final class PredictionTest extends TestCase
{
    private const S = Mixes::SECOND;

    /** @param list<array<string, mixed>> $edits */
    #[DataProvider('programmes')]
    public function testThePredictionIsWithinThreeTenthsOfALuOfTheRender(array $edits): void
    {
        $demo = Demo::open();
        $mix = array_reduce($edits, static fn (Mix $mix, array $edit): Mix => Mixes::edited($mix, $edit, $demo->mix->sources), Mix::empty());
        [$powers, $sound] = $demo->rendered($mix);
        $figures = MixFigures::of($mix, $demo->tenths()(...));
        $predicted = $figures->programme();
        self::assertNotNull($predicted->integrated);
        self::assertEqualsWithDelta(Gating::integrated($powers), $predicted->integrated, 0.3);
        $stems = array_map(static fn (Stem $stem): float => array_sum($figures->powersOf($stem)->values()), Stem::cases());
        self::assertEqualsWithDelta(array_sum($figures->powers()->values()), array_sum($stems), 1e-6 * array_sum($stems), 'the stems make up the programme');
        $peak = max(array_map(abs(...), Sound::floats($sound)));
        self::assertGreaterThanOrEqual(20 * log10($peak) - 0.1, $predicted->peak, 'no sample is higher than what was said');
    }

    /** @return iterable<string, array{list<array<string, mixed>>}> */
    public static function programmes(): iterable
    {
        $track = static fn (string $id, string $stem): array => ['edit' => 'add-track', 'track' => $id, 'name' => $id, 'stem' => $stem];
        $clip = static fn (string $track, string $source, float $at, float $in, float $length): array => ['edit' => 'add-clip', 'track' => $track, 'clip' => "{$track}-".(int) $at, 'source' => $source, 'at' => (int) ($at * self::S), 'in' => (int) ($in * self::S), 'length' => (int) ($length * self::S)];
        yield 'a conversation, panned apart' => [[
            $track('a', 'speech'), $track('b', 'speech'),
            $clip('a', 'narrator', 0.33, 1.0, 12.0), $clip('b', 'wheelhouse', 11.7, 2.2, 10.0), $clip('a', 'narrator', 22.0, 20.0, 9.5),
            ['edit' => 'set-pan', 'track' => 'a', 'pan' => -0.6], ['edit' => 'set-pan', 'track' => 'b', 'pan' => 0.8],
            ['edit' => 'set-clip-gain', 'clips' => ['b-11'], 'gain' => 5.5], ['edit' => 'set-fader', 'track' => 'a', 'fader' => -4.2],
        ]];
        yield 'two pieces of music crossing over, with dips' => [[
            $track('m', 'music'),
            $clip('m', 'slow', 0.0, 3.0, 20.0), $clip('m', 'departure', 17.0, 5.0, 18.0),
            ['edit' => 'cross-over', 'earlier' => 'm-0', 'later' => 'm-17', 'length' => '3 s'],
            ['edit' => 'dip-range', 'clips' => ['m-0'], 'from' => 5 * self::S, 'to' => 9 * self::S, 'by' => -14, 'ramp' => '0.6 s'],
            ['edit' => 'set-range', 'clips' => ['m-17'], 'from' => 25 * self::S, 'to' => 27 * self::S, 'level' => 'silence', 'ramp' => '0.3 s'],
            ['edit' => 'set-fade', 'clips' => ['m-17'], 'edge' => 'out', 'length' => '4 s'],
        ]];
        yield 'much at once, channels taken apart' => [[
            $track('s', 'speech'), $track('m', 'music'), $track('e', 'effects'), $track('h', 'ambience'),
            $clip('s', 'pair', 1.0, 0.0, 16.0), $clip('m', 'departure', 0.0, 0.0, 20.0), $clip('e', 'horn', 6.0, 0.0, 3.5), $clip('h', 'shore', 0.0, 10.0, 20.0),
            ['edit' => 'open-channels', 'clips' => ['s-1'], 'open' => true], ['edit' => 'set-channel', 'clip' => 's-1', 'channel' => 'right', 'gain' => 8],
            ['edit' => 'set-channels', 'clips' => ['h-0'], 'mode' => 'left'],
            ['edit' => 'set-fader', 'track' => 'm', 'fader' => -12], ['edit' => 'set-clip-gain', 'clips' => ['e-6'], 'gain' => -9],
        ]];
    }
}
