<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Problem;
use Wattage\Core\Timeline\Differences;
use Wattage\Tests\support\Catalogue;
use Wattage\Tests\support\EditsTable;
use Wattage\Tests\support\Mixes;

/** docs/edits.yaml describes what the reader takes: every kind, every bound, every field that must be there. */
final class CatalogueTest extends TestCase
{
    public function testTheReaderTakesTheKindsThatAreDescribed(): void
    {
        self::assertEqualsCanonicalizing(array_keys(EditReader::readers()), Catalogue::read()->kinds());
    }

    public function testTheTableForProgramsIsFresh(): void
    {
        self::assertStringEqualsFile(EditsTable::FILE, (new EditsTable(Catalogue::read()))->inPlace(), 'Run php tools/edits-table.php');
    }

    /** @param array<string, mixed> $example */
    #[DataProvider('examples')]
    public function testAnExampleIsAsDescribedAndApplies(string $kind, string $room, array $example): void
    {
        self::assertSame($kind, $example['edit']);
        self::assertSame([], Catalogue::faults($example, "edits.yaml#/{$kind}"));
        $mix = Mixes::livedIn();
        $before = MixDocument::encode($mix);
        $edit = self::reader()->read($example);
        self::assertSame($room, explode('\\', $edit::class)[3].'Edit', 'the room where the schema has it');
        self::assertNotSame('', $edit->label($mix));
        $after = Change::by($edit, $mix);
        self::assertNotSame($before, MixDocument::encode($after), 'it changes something');
        self::assertNotSame([], Differences::between($mix, $after), 'and who compares the two is told of it');
        self::assertSame($before, MixDocument::encode($mix), 'the mix before stays as it was');
    }

    /** @return iterable<string, array{string, string, array<string, mixed>}> */
    public static function examples(): iterable
    {
        $catalogue = Catalogue::read();
        foreach ($catalogue->rooms() as $room) {
            foreach ($catalogue->kinds($room) as $kind) {
                foreach ($catalogue->examples($kind) as $i => $example) {
                    yield "{$kind} {$i}" => [$kind, $room, $example];
                }
            }
        }
    }

    public function testEveryKindHasAnExample(): void
    {
        $catalogue = Catalogue::read();
        self::assertSame([], array_filter($catalogue->kinds(), static fn (string $kind): bool => [] === $catalogue->examples($kind)));
    }

    /** @param array<string, mixed> $edit */
    #[DataProvider('wrong')]
    public function testWhatIsNotAsDescribedIsRefusedByItsName(array $edit, string $field): void
    {
        try {
            Change::by(self::reader()->read($edit), Mixes::livedIn());
            self::fail('It was taken.');
        } catch (Problem $problem) {
            self::assertSame($field, $problem->field(), $problem->getMessage());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        $catalogue = Catalogue::read();
        foreach ($catalogue->kinds() as $kind) {
            $example = $catalogue->examples($kind)[0];
            yield "{$kind} with something else" => [[...$example, 'wobble' => 1], 'wobble'];
            foreach ($catalogue->required($kind) as $field) {
                yield "{$kind} without {$field}" => [array_diff_key($example, [$field => 1]), $field];
            }
            foreach ($catalogue->fields($kind) as $field => $schema) {
                foreach (self::beyond($catalogue->resolved($schema)) as $how => $value) {
                    // Optional fields that only go together with another one are tried where the example has them.
                    if (isset($example[$field]) || \in_array($field, $catalogue->required($kind), true)) {
                        yield "{$kind}, {$field} {$how}" => [[...$example, $field => $value], $field];
                    }
                }
            }
        }
    }

    /**
     * @param array<mixed> $schema
     *
     * @return array<string, mixed> values that are just not allowed
     */
    private static function beyond(array $schema): array
    {
        $number = $schema;
        foreach ((array) ($schema['anyOf'] ?? []) as $way) {
            $number = \is_array($way) && \in_array($way['type'] ?? '', ['number', 'integer'], true) ? $way : $number;
        }
        $step = 'integer' === ($number['type'] ?? '') ? 1 : 0.01;

        return array_filter([
            'too low' => is_numeric($number['minimum'] ?? null) ? $number['minimum'] - $step : null,
            'too high' => is_numeric($number['maximum'] ?? null) ? $number['maximum'] + $step : null,
            'of another word' => isset($schema['enum']) ? 'wobbly' : null,
            'not true or false' => 'boolean' === ($schema['type'] ?? '') ? 'yes' : null,
            'empty' => 1 === ($schema['minItems'] ?? 0) ? [] : null,
            'too long' => is_numeric($schema['maxLength'] ?? null) ? str_repeat('x', (int) $schema['maxLength'] + 1) : null,
        ], static fn (mixed $value): bool => null !== $value);
    }

    private static function reader(): EditReader
    {
        return new EditReader(Mixes::livedIn(), Mixes::sources());
    }
}
