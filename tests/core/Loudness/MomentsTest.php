<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Loudness;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Loudness\Moments;
use Wattage\Core\Loudness\Series;

final class MomentsTest extends TestCase
{
    /** EBU Tech 3341: a window of 400 ms has its first value once it is full, and one of 3 s likewise. */
    public function testEachMomentIsOfTheWindowThatEndsWithIt(): void
    {
        $powers = Series::of(array_fill(0, 40, 0.1));
        $all = Moments::of($powers, 0, 40);
        self::assertSame([3, 29], [\count(array_filter($all->momentary, is_null(...))), \count(array_filter($all->shortTerm, is_null(...)))]);
        self::assertEqualsWithDelta(-10.69, $all->momentary[3], 0.01);
        self::assertEqualsWithDelta(-10.69, $all->shortTerm[29], 0.01);
    }

    public function testAStretchHasAsManyAsThereAreOfIt(): void
    {
        $powers = Series::of(array_map(static fn (int $k): float => $k < 20 ? 0.01 : 0.1, range(0, 39)));
        $all = Moments::of($powers, 0, 40);
        foreach ([[0, 5], [17, 8], [36, 10], [39, 1]] as [$from, $count]) {
            $some = Moments::of($powers, $from, $count);
            self::assertSame(\array_slice($all->momentary, $from, $count), $some->momentary);
            self::assertSame(\array_slice($all->shortTerm, $from, $count), $some->shortTerm);
        }
        self::assertCount(4, Moments::of($powers, 36, 10)->momentary);
    }
}
