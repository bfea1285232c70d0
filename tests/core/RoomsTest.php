<?php

declare(strict_types=1);

namespace Wattage\Tests\core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The rooms of the core, and those of the application, stand in an order; each may use those before it, and none after it. */
final class RoomsTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    /** @param list<string> $order */
    #[DataProvider('trees')]
    public function testNoRoomUsesOneAfterIt(string $tree, string $namespace, array $order): void
    {
        $place = array_flip($order);
        $rooms = array_map(basename(...), glob(self::ROOT."/{$tree}/*", \GLOB_ONLYDIR) ?: []);
        self::assertSame([], array_merge(array_diff($rooms, $order), array_diff($order, $rooms)), 'every room has its place');
        $upwards = [];
        foreach ($rooms as $room) {
            foreach ([...(glob(self::ROOT."/{$tree}/{$room}/*.php") ?: []), ...(glob(self::ROOT."/{$tree}/{$room}/*/*.php") ?: [])] as $file) {
                preg_match_all("/Wattage\\\\{$namespace}\\\\(\\w+)\\\\/", (string) file_get_contents($file), $used);
                foreach (array_unique($used[1]) as $other) {
                    $place[$other] <= $place[$room] || $upwards[] = substr($file, \strlen(self::ROOT) + 1).' uses '.$other;
                }
            }
        }
        self::assertSame([], $upwards);
    }

    /** @return iterable<string, array{string, string, list<string>}> */
    public static function trees(): iterable
    {
        yield 'the core' => ['core', 'Core', ['Level', 'Time', 'Curve', 'Fade', 'Captions', 'Signal', 'Timeline', 'Render', 'Loudness', 'Speech', 'Ducking', 'Ride', 'Handover', 'Interchange', 'Cut', 'Edit']];
        yield 'the application' => ['src', 'App', ['Database', 'Entity', 'Storage', 'Job', 'People', 'Request', 'Upkeep', 'Media', 'Security', 'Project', 'Archive', 'Handover', 'Intake', 'Http', 'Work', 'Command']];
    }

    public function testTheCoreKnowsNothingOfTheApplication(): void
    {
        foreach ([...(glob(self::ROOT.'/core/*/*.php') ?: []), ...(glob(self::ROOT.'/core/*/*/*.php') ?: [])] as $file) {
            self::assertDoesNotMatchRegularExpression('/Wattage\\\\App\\\\|Symfony\\\\|Doctrine\\\\/', (string) file_get_contents($file), $file);
        }
    }
}
