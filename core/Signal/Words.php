<?php

declare(strict_types=1);

namespace Wattage\Core\Signal;

use Generator;

/**
 * Reads bytes as 64-bit integers, quickly.
 *
 * unpack() with a repeat count builds a key for every element. With fields of one-byte names, which PHP keeps ready made,
 * it is half again as fast (measured in bench/). So full groups are read with such a format.
 */
final class Words
{
    /** Words in a group: 10 ms of 16-bit stereo at 48 kHz. */
    public const GROUP = 240;

    private static ?string $format = null;

    /** @return Generator<array<array-key, int>> groups of words in order; trailing bytes that fill no word are left out */
    public static function groupsOf(string $bytes): Generator
    {
        self::$format ??= self::format();
        $words = \strlen($bytes) >> 3;
        for ($at = 0; $at + self::GROUP <= $words; $at += self::GROUP) {
            /** @var array<string, int> $group */
            $group = unpack(self::$format, $bytes, 8 * $at);
            yield $group;
        }
        if ($at < $words) {
            /** @var array<int, int> $group */
            $group = unpack('q'.($words - $at), $bytes, 8 * $at);
            yield $group;
        }
    }

    /** @return list<int> one full group from a byte on */
    public static function group(string $bytes, int $at): array
    {
        /** @var array<string, int> $group */
        $group = unpack(self::$format ??= self::format(), $bytes, $at);

        return array_values($group);
    }

    private static function format(): string
    {
        // A name must not look like a repeat count or end the field, and NUL would cut it short.
        $names = array_diff(array_map(\chr(...), range(1, 255)), [...array_map(strval(...), range(0, 9)), '/', '*']);

        return implode('/', array_map(static fn (string $name): string => 'q'.$name, \array_slice($names, 0, self::GROUP)));
    }
}
