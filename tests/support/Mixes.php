<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\EditReader;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Source;

/** A small mix to try edits on: a voice over a bed, of 10 s each. */
final class Mixes
{
    public const SECOND = 48_000;

    public static function voiceOverBed(): Mix
    {
        $mix = Mix::empty();
        foreach ([
            ['edit' => 'add-track', 'track' => 'speech', 'name' => 'Narrator', 'stem' => 'speech'],
            ['edit' => 'add-track', 'track' => 'music', 'name' => 'Music', 'stem' => 'music'],
            ['edit' => 'add-clip', 'track' => 'speech', 'clip' => 'voice', 'source' => 'src-voice', 'at' => 2 * self::SECOND, 'in' => self::SECOND, 'length' => 6 * self::SECOND],
            ['edit' => 'add-clip', 'track' => 'music', 'clip' => 'bed', 'source' => 'src-bed', 'at' => 0],
        ] as $edit) {
            $mix = self::edited($mix, $edit);
        }

        return $mix;
    }

    /**
     * @param array<string, mixed> $edit
     * @param array<string, Source> $sources
     */
    public static function edited(Mix $mix, array $edit, array $sources = []): Mix
    {
        return Change::by((new EditReader($mix, [...self::sources(), ...$sources]))->read($edit), $mix);
    }

    /** @return array<string, Source> */
    public static function sources(): array
    {
        return [
            'src-voice' => new Source('src-voice', 'Narrator', 10 * self::SECOND, 1, Decibels::unchanged()),
            'src-bed' => new Source('src-bed', 'Slow accordion', 10 * self::SECOND, 2, Decibels::unchanged()),
        ];
    }
}
