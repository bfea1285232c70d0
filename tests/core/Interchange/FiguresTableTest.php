<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Interchange;

use PHPUnit\Framework\TestCase;
use Wattage\Core\Interchange\FiguresTable;
use Wattage\Core\Loudness\MixFigures;
use Wattage\Core\Loudness\SourceTenths;
use Wattage\Core\Speech\Clearance;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Mix;
use Wattage\Tests\support\Mixes;

final class FiguresTableTest extends TestCase
{
    public function testEachRowIsOfTheWindowsThatEndWithIt(): void
    {
        $rows = iterator_to_array(self::table(Mixes::voiceOverBed())->rows());
        self::assertCount(100, $rows);
        self::assertEquals([0.1, 10.0], [$rows[0][0], $rows[99][0]]);
        self::assertSame([null, null], [$rows[2][1], $rows[28][2]], 'no whole window yet');
        self::assertNotNull($rows[3][1]);
        self::assertNotNull($rows[29][2]);
        self::assertNull($rows[10][3], 'nobody speaks before 2 s');
        self::assertNotNull($rows[30][3]);
        self::assertNull($rows[10][5]);
        // Voice 0.004 on both sides of the bus against 0.02 on each of two: 10·lg(0.008 / 0.04).
        self::assertEqualsWithDelta(10.0 * log10(0.008 / 0.04), $rows[50][5], 0.01);
        self::assertEqualsWithDelta($rows[50][3] - $rows[50][4], $rows[50][5], 0.02);
        self::assertEqualsWithDelta(-0.691 + 10.0 * log10(0.048), $rows[50][1], 0.01);
    }

    /** RFC 4180: lines end with CR LF, a header first; what is not known is empty. */
    public function testCsvHasAHeaderAndEmptyCells(): void
    {
        $lines = iterator_to_array(self::table(Mixes::voiceOverBed())->csv(), false);
        self::assertCount(101, $lines);
        self::assertSame(implode(',', FiguresTable::COLUMNS)."\r\n", $lines[0]);
        self::assertSame("0.1,,,,,\r\n", $lines[1]);
        self::assertMatchesRegularExpression('/^5\.1(,-?\d+(\.\d+)?){5}\r\n$/', $lines[51]);
        foreach ($lines as $line) {
            self::assertSame(5, substr_count($line, ','));
            self::assertStringNotContainsStringIgnoringCase('nan', $line);
            self::assertStringNotContainsStringIgnoringCase('inf', $line);
        }
    }

    public function testAnEmptyMixHasAHeaderAlone(): void
    {
        self::assertCount(1, iterator_to_array(self::table(Mix::empty())->csv(), false));
    }

    private static function table(Mix $mix): FiguresTable
    {
        $figures = MixFigures::of($mix, static fn (string $id): SourceTenths => 'src-voice' === $id
            ? SourceTenths::fromBytes(pack('g*', ...array_fill(0, 100, 0.004), ...array_fill(0, 100, 0.5)), 1)
            : SourceTenths::fromBytes(pack('g*', ...array_fill(0, 200, 0.02), ...array_fill(0, 100, 0.7)), 2));

        return new FiguresTable($figures, Clearance::of($mix, $figures, [Span::of(2 * Mixes::SECOND, 8 * Mixes::SECOND)], 15.0));
    }
}
