<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use FilesystemIterator;
use Generator;
use PhpToken;
use Random\Engine\Mt19937;
use Random\Randomizer;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;

/** All single operators of a room of the core that can be turned around, and whether its tests notice. */
final readonly class Mutants
{
    private const ROOT = __DIR__.'/../../';

    private const TURNS = [
        '+' => '-', '-' => '+', '*' => '/', '/' => '*', '<' => '<=', '>' => '>=', '<=' => '<', '>=' => '>', '===' => '!==', '!==' => '===',
        '&&' => '||', '||' => '&&', 'min' => 'max', 'max' => 'min', 'floor' => 'ceil', 'ceil' => 'floor', 'true' => 'false', 'false' => 'true',
    ];

    /** Tests of other rooms that say what this one does. */
    private const MORE = [
        'Curve' => ['tests/core/Render/GainScheduleTest.php', 'tests/core/Edit/EditTest.php'],
        'Ducking' => ['tests/core/Edit/DeskEditsTest.php'],
        'Edit' => ['tests/core/Timeline', 'tests/core/Ride'],
    ];

    /** @param list<array{string, int}> $places file, and number of the token in it */
    private function __construct(private string $room, private array $places, private Randomizer $random)
    {
    }

    public static function of(string $room, int $seed): self
    {
        $places = [];
        /** @var SplFileInfo $file */
        foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator(self::ROOT."core/{$room}", FilesystemIterator::SKIP_DOTS)) as $file) {
            $path = "core/{$room}".substr($file->getPathname(), \strlen(self::ROOT."core/{$room}"));
            foreach (self::tokens($path) as $i => $token) {
                if (isset(self::TURNS[$token->text])) {
                    $places[] = [$path, $i];
                }
            }
        }
        sort($places);

        return new self($room, $places, new Randomizer(new Mt19937($seed)));
    }

    /** @return Generator<Mutant> so many at random */
    public function some(int $count): Generator
    {
        foreach (\array_slice($this->random->shuffleArray($this->places), 0, $count) as [$file, $number]) {
            $code = '';
            $line = 0;
            $was = '';
            foreach (self::tokens($file) as $i => $token) {
                if ($i === $number) {
                    [$line, $was] = [$token->line, $token->text];
                }
                $code .= $i === $number ? self::TURNS[$token->text] : $token->text;
            }
            yield new Mutant($file, $line, $was, self::TURNS[$was], $code);
        }
    }

    public function isNoticed(Mutant $mutant): bool
    {
        $copy = (string) tempnam(sys_get_temp_dir(), 'mutant');
        file_put_contents($copy, $mutant->code);
        $class = 'Wattage\\Core\\'.strtr(substr($mutant->file, 5, -4), '/', '\\');
        $loader = "{$copy}.php";
        file_put_contents($loader, '<?php spl_autoload_register(static function (string $class): void { if ('.var_export($class, true).' === $class) { require '.var_export($copy, true).'; } }, true, true);');
        try {
            exec('cd '.escapeshellarg(self::ROOT).' && timeout 120 php -d memory_limit=512M vendor/bin/phpunit --bootstrap '.escapeshellarg($this->bootstrap($loader)).' --no-progress --no-logging --stop-on-defect --do-not-cache-result '.implode(' ', array_map(escapeshellarg(...), ["tests/core/{$this->room}", 'tests/core/ScreenTest.php', ...self::MORE[$this->room] ?? []])).' 2>&1', $said, $code);
        } finally {
            unlink($copy);
            unlink($loader);
            @unlink("{$copy}.boot.php");
        }

        return 0 !== $code;
    }

    private function bootstrap(string $loader): string
    {
        $file = substr($loader, 0, -4).'.boot.php';
        file_put_contents($file, '<?php require '.var_export(realpath(self::ROOT.'vendor/autoload.php'), true).'; require '.var_export($loader, true).';');

        return $file;
    }

    /** @return array<int, PhpToken> */
    private static function tokens(string $file): array
    {
        return array_values(PhpToken::tokenize((string) file_get_contents(self::ROOT.$file)));
    }
}
