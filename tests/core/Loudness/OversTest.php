<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Wattage\Core\Loudness\Overs;
use Wattage\Core\Loudness\TruePeak;
use Wattage\Tests\support\AnnexTwo;

/** ITU-R BS.1770, Annex 2: where a ceiling is passed, against the plain sum over all taps and phases. */
final class OversTest extends TestCase
{
    /** @param list<list<float>> $channels */
    #[DataProvider('sounds')]
    public function testEveryPlaceThatPassesIsFoundAsHighAsItIs(array $channels, float $ceiling, int $grain): void
    {
        $frames = \count($channels[0]);
        $interleaved = [];
        for ($i = 0; $i < $frames + 12; ++$i) {
            foreach ($channels as $channel) {
                $interleaved[] = $channel[$i] ?? 0.0;
            }
        }
        $overs = new Overs(\count($channels), $ceiling, $grain);
        $found = [];
        foreach (array_chunk($interleaved, 300 * \count($channels)) as $chunk) {
            foreach ($overs->push($chunk) as $frame => $value) {
                $found[$frame] = max($value, $found[$frame] ?? 0.0);
            }
        }
        self::assertEqualsWithDelta(self::highestOfEach($grain, self::plainly($channels, $ceiling)), self::highestOfEach($grain, $found), 1e-9);
    }

    /** @return iterable<string, array{list<list<float>>, float, int}> */
    public static function sounds(): iterable
    {
        $random = new Randomizer(new Mt19937(5));
        $noise = static fn (float $size): array => array_map(static fn (): float => $size * ($random->getInt(-1_000_000, 1_000_000) / 1e6), range(1, 1800));
        yield 'noise, nearly all of it over' => [[$noise(1.0)], 0.2, 1];
        yield 'noise, little of it over' => [[$noise(0.6)], 0.62, 1];
        yield 'two channels' => [[$noise(0.5), $noise(0.7)], 0.6, 1];
        yield 'the highest of every 16 frames' => [[$noise(0.6), $noise(0.6)], 0.5, 16];
        $sine = array_map(static fn (int $i): float => 0.9 * sin(2 * \M_PI * $i / 4 + \M_PI / 4), range(1, 1800));
        yield 'a sine that passes between its samples only' => [[$sine], 0.7, 1];
        yield 'a short burst' => [[array_map(static fn (int $i): float => 17 === intdiv($i, 40) ? ($i % 2 ? 0.9 : -0.9) : 0.001, range(1, 1800))], 0.5, 1];
    }

    /**
     * @param list<list<float>> $channels
     *
     * @return array<int, float> by frame, of all channels
     */
    private static function plainly(array $channels, float $ceiling): array
    {
        $phases = [...AnnexTwo::PHASES, ...array_map(array_reverse(...), AnnexTwo::PHASES)];
        $over = [];
        foreach ($channels as $channel) {
            $row = [...array_fill(0, 11, 0.0), ...$channel, ...array_fill(0, 12, 0.0)];
            for ($frame = 0, $n = \count($channel); $frame < $n; ++$frame) {
                $highest = abs($channel[$frame]);
                foreach ($phases as $taps) {
                    $sum = 0.0;
                    foreach ($taps as $k => $tap) {
                        // The taps lie around the gap after the frame: five samples before it, and six after.
                        $sum += $tap * $row[$frame + 11 - 5 + $k];
                    }
                    $highest = max($highest, abs($sum) / TruePeak::UNIT);
                }
                if ($highest > $ceiling) {
                    $over[$frame] = max($highest, $over[$frame] ?? 0.0);
                }
            }
        }
        ksort($over);

        return $over;
    }

    /**
     * @param array<int, float> $over
     *
     * @return array<int, float> by grain
     */
    private static function highestOfEach(int $grain, array $over): array
    {
        $highest = [];
        foreach ($over as $frame => $value) {
            $highest[intdiv($frame, $grain)] = max($value, $highest[intdiv($frame, $grain)] ?? 0.0);
        }
        ksort($highest);

        return $highest;
    }
}
