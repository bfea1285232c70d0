<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Interchange;

use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Problem;

final class FieldsTest extends TestCase
{
    public function testWhatIsThereIsReadWithItsType(): void
    {
        $fields = Fields::of(['n' => 5, 'whole' => 480.0, 'f' => 1, 's' => 'x', 'b' => false, 'l' => '-6 dB', 'list' => [['n' => 1]], 'words' => ['a'], 'ints' => [1, 2]]);
        self::assertSame(5, $fields->int('n'));
        self::assertSame(480, $fields->int('whole'), 'JSON writers may write 480 as 480.0');
        self::assertSame(1.0, $fields->float('f', 0, 2));
        self::assertSame('x', $fields->string('s'));
        self::assertFalse($fields->bool('b'));
        self::assertSame(-6.0, $fields->level('l')->db);
        self::assertSame(1, $fields->objects('list')[0]->int('n'));
        self::assertSame(['a'], $fields->strings('words'));
        self::assertSame([1, 2], $fields->ints('ints'));
        self::assertSame(7, $fields->int('missing', default: 7));
        self::assertTrue($fields->isText('l'));
        self::assertFalse($fields->has('missing'));
    }

    /** @param Closure(Fields): mixed $read */
    #[DataProvider('mistakes')]
    public function testAMistakeIsToldWithTheWholePathOfTheField(mixed $document, Closure $read, string $path): void
    {
        try {
            $read(Fields::of($document));
            self::fail('It was accepted.');
        } catch (Problem $problem) {
            self::assertSame($path, $problem->field(), $problem->getMessage());
            self::assertStringEndsWith('.', $problem->getMessage());
        }
    }

    /** @return iterable<string, array{mixed, Closure(Fields): mixed, string}> */
    public static function mistakes(): iterable
    {
        yield 'missing' => [[], static fn (Fields $f): int => $f->int('n'), 'n'];
        yield 'null is missing' => [['n' => null], static fn (Fields $f): int => $f->int('n'), 'n'];
        yield 'text for a number' => [['n' => '5'], static fn (Fields $f): int => $f->int('n'), 'n'];
        yield 'half a number' => [['n' => 5.5], static fn (Fields $f): int => $f->int('n'), 'n'];
        yield 'true for a number' => [['n' => true], static fn (Fields $f): float => $f->float('n', 0, 1), 'n'];
        yield 'too large' => [['n' => 11], static fn (Fields $f): int => $f->int('n', 0, 10), 'n'];
        yield 'NAN' => [['n' => \NAN], static fn (Fields $f): float => $f->float('n', -1, 1), 'n'];
        yield 'a number for text' => [['s' => 5], static fn (Fields $f): string => $f->string('s'), 's'];
        yield 'a list for text' => [['s' => ['x']], static fn (Fields $f): string => $f->string('s'), 's'];
        yield 'a number for yes or no' => [['b' => 1], static fn (Fields $f): bool => $f->bool('b'), 'b'];
        yield 'a list for a level' => [['l' => []], static fn (Fields $f): mixed => $f->level('l'), 'l'];
        yield 'an object for a list' => [['l' => ['a' => 1]], static fn (Fields $f): array => $f->objects('l'), 'l'];
        yield 'an empty list' => [['l' => []], static fn (Fields $f): array => $f->strings('l'), 'l'];
        yield 'a list of mixed things' => [['l' => [1, '2']], static fn (Fields $f): array => $f->ints('l'), 'l'];
        yield 'deep inside' => [['t' => [['c' => [[], ['n' => -1]]]]], static fn (Fields $f): int => $f->objects('t')[0]->objects('c')[1]->int('n'), 't[0].c[1].n'];
        yield 'a list for the document' => [[1], static fn (Fields $f): bool => true, 'document'];
        yield 'text for the document' => ['x', static fn (Fields $f): bool => true, 'document'];
        yield 'one field too many' => [['n' => 1, 'm' => 2], static function (Fields $f): void {
            $f->onlyHave('n');
        }, 'm'];
    }
}
