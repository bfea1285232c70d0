<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Time;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Time\Span;
use Wattage\Core\Time\Spans;

final class SpansTest extends TestCase
{
    /**
     * @param list<array{int, int}> $spans
     * @param list<array{int, int}> $expected
     */
    #[DataProvider('parts')]
    public function testPartsWithinAnotherSpan(array $spans, array $expected): void
    {
        self::assertSame($expected, self::pairs(Spans::within(self::spans($spans), Span::of(100, 200))));
    }

    /** @return iterable<string, array{list<array{int, int}>, list<array{int, int}>}> */
    public static function parts(): iterable
    {
        yield 'none' => [[], []];
        yield 'all before, all after' => [[[0, 50], [60, 100], [200, 210]], []];
        yield 'over its ends' => [[[10, 20], [90, 110], [120, 130], [190, 300], [400, 500]], [[100, 110], [120, 130], [190, 200]]];
        yield 'all around it' => [[[0, 1000]], [[100, 200]]];
    }

    public function testUnionAndWhatIsLeft(): void
    {
        self::assertSame([[0, 30], [50, 60]], self::pairs(Spans::union(self::spans([[50, 60], [0, 10], [8, 20], [25, 30]]), 5)));
        self::assertSame([[0, 5], [15, 20], [40, 50]], self::pairs(Spans::minus(self::spans([[0, 20], [30, 50]]), self::spans([[5, 15], [25, 40]]))));
    }

    /**
     * @param list<array{int, int}> $pairs
     *
     * @return list<Span>
     */
    private static function spans(array $pairs): array
    {
        return array_map(static fn (array $pair): Span => Span::of(...$pair), $pairs);
    }

    /**
     * @param list<Span> $spans
     *
     * @return list<array{int, int}>
     */
    private static function pairs(array $spans): array
    {
        return array_map(static fn (Span $span): array => [$span->from, $span->to], $spans);
    }
}
