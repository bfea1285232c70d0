<?php

declare(strict_types=1);

namespace Wattage\Tests\app;

use PHPUnit\Framework\TestCase;
use Wattage\App\Media\PictureCuts;

final class PictureCutsTest extends TestCase
{
    public function testAFrameThatDiffersMuchMoreThanThoseAroundItIsACut(): void
    {
        self::assertSame([1.0], self::cuts(still: 0.002, at: [25 => 0.06]), 'between two dark shots');
        self::assertSame([1.0], self::cuts(still: 0.09, at: [25 => 0.45]), 'in the midst of much movement');
        self::assertSame([], self::cuts(still: 0.09, at: [25 => 0.2]), 'a sudden move');
        self::assertSame([], self::cuts(still: 0.0, at: [25 => 0.04]), 'a grain of noise');
    }

    public function testAFlashIsOneCutAndTwoShotsAreTwo(): void
    {
        self::assertSame([1.0], self::cuts(still: 0.001, at: [25 => 0.7, 26 => 0.7]));
        self::assertSame([1.0, 1.4], self::cuts(still: 0.001, at: [25 => 0.7, 35 => 0.7]));
    }

    public function testNothingAtAll(): void
    {
        self::assertSame([], PictureCuts::in([]));
    }

    /**
     * @param array<int, float> $at scores by frame, at 25 a second
     *
     * @return list<float>
     */
    private static function cuts(float $still, array $at): array
    {
        $scores = [];
        for ($frame = 0; $frame < 75; ++$frame) {
            $scores[\sprintf('%.2f', $frame / 25)] = $at[$frame] ?? $still;
        }

        return PictureCuts::in($scores);
    }
}
