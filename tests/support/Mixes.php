<?php

declare(strict_types=1);

namespace Wattage\Tests\support;

use Wattage\Core\Edit\Change;
use Wattage\Core\Edit\Reading\EditReader;
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

    /** The same with something of everything: a dip, a film with opened channels, another without its picture, a cut clip, a marker, lanes. */
    public static function livedIn(): Mix
    {
        $s = self::SECOND;
        $mix = self::voiceOverBed();
        foreach ([
            ['edit' => 'set-clip-gain', 'clips' => ['voice'], 'gain' => -2],
            ['edit' => 'dip-range', 'clips' => ['bed'], 'from' => 4 * $s, 'to' => 6 * $s, 'by' => -11, 'ramp' => $s],
            ['edit' => 'add-track', 'track' => 'shore', 'name' => 'Shore', 'stem' => 'ambience'],
            ['edit' => 'add-clip', 'track' => 'shore', 'clip' => 'film', 'source' => 'src-film', 'at' => 20 * $s],
            ['edit' => 'open-channels', 'clips' => ['film'], 'open' => true],
            ['edit' => 'add-clip', 'track' => 'shore', 'clip' => 'reel', 'source' => 'src-film', 'at' => 31 * $s, 'in' => $s, 'length' => 6 * $s],
            ['edit' => 'detach-picture', 'clips' => ['reel']],
            ['edit' => 'add-clip', 'track' => 'shore', 'clip' => 'mast', 'source' => 'src-bed', 'at' => 0],
            ['edit' => 'split', 'cuts' => [['clip' => 'mast', 'at' => 5 * $s]]],
            ['edit' => 'add-marker', 'marker' => 'm1', 'at' => 3 * $s, 'name' => 'Bell'],
            ['edit' => 'set-pan-point', 'track' => 'music', 'at' => $s / 2, 'pan' => -0.5],
            ['edit' => 'duck', 'lanes' => [['tracks' => ['music'], 'curve' => [['at' => $s, 'level' => 0, 'ramp' => 'line'], ['at' => 2 * $s, 'level' => -6, 'ramp' => 'line']]]]],
            ['edit' => 'set-range', 'track' => 'music', 'lane' => 'ducking', 'from' => 2 * $s, 'to' => 3 * $s, 'level' => -3, 'ramp' => 480],
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
            'src-film' => new Source('src-film', 'Crossing', 10 * self::SECOND, 2, Decibels::unchanged(), picture: true),
            'src-bed' => new Source('src-bed', 'Slow accordion', 10 * self::SECOND, 2, Decibels::unchanged()),
        ];
    }
}
