<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\AverageOutline;
use Wattage\Core\Loudness\SourceBlocks;
use Wattage\Tests\support\Sound;

final class AverageOutlineTest extends TestCase
{
    public function testASineReadsItsRootMeanSquareWhereverPointsAreCut(): void
    {
        // A full-scale sine has a mean square of a half, whose root is 0.7071; a channel 20 dB lower has a hundredth of it.
        $blocks = static fn (int $count): SourceBlocks => SourceBlocks::fromBytes(str_repeat(pack('g4', 0.5, 1.0, 0.005, 0.1), $count), 2);
        foreach ([1 => 131, 2 => 33, 3 => 9, 4 => 3] as $level => $count) {
            foreach ([null => 23170, 0 => 23170, 1 => 2317] as $only => $expected) {
                $points = Sound::integers('v*', AverageOutline::of([$blocks(100), $blocks(31)], $level, '' === $only ? null : $only));
                self::assertSame(array_fill(0, $count, $expected), $points, "level {$level}");
            }
        }
    }

    public function testPowersAreAveragedAndNotLevels(): void
    {
        $blocks = SourceBlocks::fromBytes(pack('g8', 0.5, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0), 1);
        self::assertSame([1 => (int) round(32768 * sqrt(0.125))], unpack('v', AverageOutline::of([$blocks], 2)));
    }

    public function testSilenceAndNothingAtAll(): void
    {
        self::assertSame("\0\0", AverageOutline::of([SourceBlocks::fromBytes(pack('g2', 0.0, 0.0), 1)], 4));
        self::assertSame('', AverageOutline::of([], 1));
    }
}
