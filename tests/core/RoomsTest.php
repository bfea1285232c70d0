<?php

declare(strict_types=1);

namespace Wattage\Tests\core;

use PHPUnit\Framework\TestCase;

/** The rooms of all three trees, in the order that tools/rooms.json gives: none uses one above it, and none has more than a fifth of its tree. */
final class RoomsTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    public function testRoomsStandInOrder(): void
    {
        exec('node '.escapeshellarg(self::ROOT.'/tools/rooms.mjs').' --check 2>&1', $said, $code);
        self::assertSame([], $said);
        self::assertSame(0, $code);
    }

    public function testNoFunctionIsLongerThanAPage(): void
    {
        exec('php '.escapeshellarg(self::ROOT.'/tools/sizes.php').' --check 2>&1', $said);
        self::assertSame([], $said);
    }

    public function testTheCoreKnowsNothingOfTheApplication(): void
    {
        foreach ([...(glob(self::ROOT.'/core/*/*.php') ?: []), ...(glob(self::ROOT.'/core/*/*/*.php') ?: [])] as $file) {
            self::assertDoesNotMatchRegularExpression('/Wattage\\\\App\\\\|Symfony\\\\|Doctrine\\\\/', (string) file_get_contents($file), $file);
        }
    }
}
