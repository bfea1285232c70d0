<?php

declare(strict_types=1);

namespace Wattage\Tests\core\Edit;

use PHPUnit\Framework\TestCase;

/** The kinds of edits are spelled in three places: where they are read, in the table for programs, and in the types of the screen. */
final class CatalogueTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';

    public function testTheReaderTheTableAndTheScreenKnowTheSameKinds(): void
    {
        $read = [];
        foreach (glob(self::ROOT.'/core/Edit/Reading/*Edits.php') ?: [] as $file) {
            $source = (string) file_get_contents($file);
            // The match in read() names them, one or more to an arm.
            self::assertSame(1, preg_match('/public static function read\(.*?match \(\$kind\) \{(.*?)default => null/s', $source, $body), $file);
            preg_match_all("/^            ((?:'[a-z-]+'(?:, )?)+) =>/m", $body[1], $arms);
            preg_match_all("/'([a-z-]+)'/", implode(' ', $arms[1]), $kinds);
            array_push($read, ...$kinds[1]);
        }
        self::assertSame(self::sorted($read), self::sorted(self::found('docs/formats.md', '/^\| (`[a-z-]+`(?:, `[a-z-]+`)*) \|/m', '/## Edits(.*?)\n## /s', '/`([a-z-]+)`/')), 'docs/formats.md');
        self::assertSame(self::sorted($read), self::sorted(self::found('web/src/api/types.ts', '/\bedit: ((?:\s*\|?\s*"[a-z-]+")+)/', '/export type Edit =(.*?)(?:\nexport |\z)/s', '/"([a-z-]+)"/')), 'web/src/api/types.ts');
    }

    /** @return list<string> */
    private static function found(string $file, string $rows, string $part, string $kind): array
    {
        self::assertSame(1, preg_match($part, (string) file_get_contents(self::ROOT."/{$file}"), $text), $file);
        preg_match_all($rows, $text[1], $found);
        preg_match_all($kind, implode(' ', $found[1]), $kinds);

        return $kinds[1];
    }

    /**
     * @param list<string> $kinds
     *
     * @return list<string>
     */
    private static function sorted(array $kinds): array
    {
        $kinds = array_unique($kinds);
        sort($kinds);

        return $kinds;
    }
}
