<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\Series;
use Wattage\Core\Loudness\Skyline;

final class SkylineTest extends TestCase
{
    public function testEachColumnHasTheMeanOfItsPowers(): void
    {
        // A mean square of 1 is −0.691 LUFS by ITU-R BS.1770; a hundredth of it is 20 dB less.
        $powers = Series::of([...array_fill(0, 50, 1.0), ...array_fill(0, 25, 0.01), ...array_fill(0, 25, 0.0)]);
        self::assertSame([-0.7, -0.7, -20.7, null], Skyline::of($powers, 4));
        self::assertSame([-0.7, -23.7], Skyline::of($powers, 2));
    }

    public function testThereAreNoMoreColumnsThanTenths(): void
    {
        self::assertSame([-0.7, -0.7], Skyline::of(Series::of([1.0, 1.0]), 120));
        self::assertSame([], Skyline::of(Series::of([]), 120));
    }
}
