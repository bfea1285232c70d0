<?php

declare(strict_types=1);

namespace Wattage\Tests\core;

use PHPUnit\Framework\TestCase;

/** The rooms of the core stand in an order; each may use those before it, and none after it. */
final class RoomsTest extends TestCase
{
    private const ORDER = ['Level', 'Time', 'Curve', 'Fade', 'Captions', 'Signal', 'Timeline', 'Render', 'Loudness', 'Speech', 'Ducking', 'Ride', 'Handover', 'Interchange', 'Cut', 'Edit'];
    private const CORE = __DIR__.'/../../core';

    public function testNoRoomUsesOneAfterIt(): void
    {
        $place = array_flip(self::ORDER);
        $rooms = array_map(basename(...), glob(self::CORE.'/*', \GLOB_ONLYDIR) ?: []);
        self::assertSame([], array_diff($rooms, self::ORDER), 'every room has its place');
        $upwards = [];
        foreach ($rooms as $room) {
            foreach ([...(glob(self::CORE."/{$room}/*.php") ?: []), ...(glob(self::CORE."/{$room}/*/*.php") ?: [])] as $file) {
                preg_match_all('/Wattage\\\\Core\\\\(\w+)\\\\/', (string) file_get_contents($file), $used);
                foreach (array_unique($used[1]) as $other) {
                    $place[$other] <= $place[$room] || $upwards[] = substr($file, \strlen(self::CORE) + 1).' uses '.$other;
                }
            }
        }
        self::assertSame([], $upwards);
    }
}
