<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Ducking;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Bands\ThirdOctaves;
use Wattage\Core\Clarity\Ear;
use Wattage\Core\Clarity\Hearing;
use Wattage\Core\Ducking\BandShares;
use Wattage\Core\Ducking\DepthSearch;
use Wattage\Core\Ducking\Passage;
use Wattage\Core\Timeline\DuckPart;
use Wattage\Core\Timeline\Room;
use Wattage\Tests\support\Random;

/** Against the same sought by halving, which is slow and plain. */
final class DepthSearchTest extends TestCase
{
    private const DEEPEST = -30.0;

    /** From wherever it is begun, it is enough where anything is, and hardly deeper than it takes. */
    #[DataProvider('parts')]
    public function testItIsEnoughAndHardlyDeeperThanItTakes(DuckPart $part): void
    {
        $random = new Random(5);
        $search = new DepthSearch(self::DEEPEST);
        $reached = $beyond = 0;
        for ($round = 0; $round < 300; ++$round) {
            $passage = self::passage($random);
            $sought = $random->float(0.3, 0.9);
            [$depth, $index] = $search->to($sought, $passage, $part, -$random->float(0.0, 30.0));
            self::assertSame($passage->index($depth, $part), $index);
            $most = $passage->index(self::DEEPEST, $part);
            if ($most < $sought) {
                ++$beyond;
                self::assertSame([self::DEEPEST, $most], [$depth, $index]);
                continue;
            }
            ++$reached;
            self::assertGreaterThanOrEqual($sought, $index);
            $least = self::halved($sought, $passage, $part);
            self::assertTrue($depth >= $least - 1e-6 || $index - $sought <= 0.006, "{$depth} for {$least} dB");
        }
        self::assertGreaterThan(30, min($reached, $beyond), 'both are tried');
    }

    /** @return iterable<string, array{DuckPart}> */
    public static function parts(): iterable
    {
        foreach (DuckPart::cases() as $part) {
            yield $part->value => [$part];
        }
    }

    /** Words that are louder are as words that were louder from the beginning. */
    public function testLouderWords(): void
    {
        $ear = new Ear(Hearing::in(Room::Quiet), 1.0);
        $row = array_fill(0, ThirdOctaves::COUNT, 0.01);
        $passage = static fn (float $power): Passage => Passage::of($ear, (new BandShares(48_000))->byBand(), array_fill(0, ThirdOctaves::COUNT, $power), $row, $row);
        self::assertEqualsWithDelta($passage(0.04)->index(-3.0, DuckPart::All), $passage(0.01)->louder(10.0 * log10(4.0))->index(-3.0, DuckPart::All), 1e-9);
    }

    private static function passage(Random $random): Passage
    {
        $ear = new Ear(Hearing::in(Room::Quiet), 1.0);
        $spectrum = static fn (float $loudest): array => array_map(static fn (): float => 10.0 ** (-$random->float(2.5, 4.5) + $loudest / 10.0), range(0, ThirdOctaves::COUNT - 1));

        return Passage::of($ear, (new BandShares(48_000))->byBand(), $spectrum(10.0), $spectrum($random->float(12.0, 30.0)), $spectrum($random->float(0.0, 8.0)));
    }

    private static function halved(float $sought, Passage $passage, DuckPart $part): float
    {
        if ($passage->index(0.0, $part) >= $sought) {
            return 0.0;
        }
        [$enough, $short] = [self::DEEPEST, 0.0];
        for ($i = 0; $i < 40; ++$i) {
            $middle = 0.5 * ($enough + $short);
            $passage->index($middle, $part) >= $sought ? $enough = $middle : $short = $middle;
        }

        return $enough;
    }
}
