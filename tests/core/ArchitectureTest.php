<?php

declare(strict_types=1);

namespace Wattage\Tests\core;

use FilesystemIterator;
use PHPUnit\Framework\TestCase;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;

/** The walls of the house: the core knows nothing outside itself, and no room reaches into another's inner one. */
final class ArchitectureTest extends TestCase
{
    public function testTheCoreImportsNeitherFrameworkNorApplication(): void
    {
        foreach ($this->coreFiles() as $path => $code) {
            self::assertSame(0, preg_match('/\b(Symfony|Doctrine|League|Psr|Wattage\\\\App)\\\\/', $code), $path);
        }
    }

    public function testNoRoomUsesTheInternalsOfAnother(): void
    {
        foreach ($this->coreFiles() as $path => $code) {
            $room = explode('/', $path)[0];
            preg_match_all('/Core\\\\(\w+)\\\\Internal/', $code, $found);
            self::assertSame([], array_values(array_diff($found[1], [$room])), $path);
        }
    }

    public function testTheCoreHasNoClockNoRandomnessWithoutASeedAndNoFilesOfItsOwn(): void
    {
        foreach ($this->coreFiles() as $path => $code) {
            self::assertSame(0, preg_match('/(?<!->|::|function )\b(microtime|time|date|mt_rand|rand|random_int|fopen|file_get_contents|file_put_contents)\(/', $code), $path);
        }
    }

    /** @return array<string, string> code by path below core/ */
    private function coreFiles(): array
    {
        $root = \dirname(__DIR__, 2).'/core';
        $files = [];
        /** @var SplFileInfo $file */
        foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($root, FilesystemIterator::SKIP_DOTS)) as $file) {
            $files[substr($file->getPathname(), \strlen($root) + 1)] = (string) file_get_contents($file->getPathname());
        }
        self::assertGreaterThan(40, \count($files));

        return $files;
    }
}
