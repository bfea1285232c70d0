<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\AimDocument;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Room;
use Wattage\Core\Timeline\Stem;

/** Edits of faders and of what the mix aims at. */
final class DeskEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'set-fader' => static fn (EditFields $read): Edit => new SetFader($read->fields->string('track'), $read->fields->level('fader', Decibels::MAX_FADER), $read->fields->has('linked') ? $read->fields->strings('linked') : []),
            'set-pan' => static fn (EditFields $read): Edit => new SetPan($read->fields->string('track'), $read->fields->float('pan', -1, 1)),
            'set-aim' => static fn (EditFields $read): Edit => self::setAim($read->fields),
            'set-zone' => static fn (EditFields $read): Edit => new SetZone($read->fields->choice('stem', Stem::class), $read->fields->has('high') ? AimDocument::readZone($read->fields) : null),
            'set-faders' => static fn (EditFields $read): Edit => new SetFaders(self::faders($read->fields)),
            'set-stem-fader' => static fn (EditFields $read): Edit => new SetBusFader($read->fields->choice('stem', Stem::class), $read->fields->level('fader', Decibels::MAX_FADER)),
            'set-programme-fader' => static fn (EditFields $read): Edit => new SetBusFader(null, $read->fields->level('fader', Decibels::MAX_FADER)),
        ];
    }

    private static function setAim(Fields $fields): SetAim
    {
        $has = array_filter(['clearance', 'sensitivity', 'loudness', 'truePeak', 'clarity', 'room'], $fields->has(...));
        [] !== $has || throw InvalidEdit::nothingToSet('clearance, sensitivity, loudness, truePeak, clarity, room');
        $number = static fn (string $name, float $min, float $max): ?float => $fields->has($name) ? $fields->float($name, $min, $max) : null;

        return new SetAim(
            $number('clearance', Aim::LEAST_CLEARANCE, Aim::MOST_CLEARANCE),
            $number('sensitivity', Aim::LEAST_SENSITIVITY, Aim::MOST_SENSITIVITY),
            $number('loudness', -60.0, 0.0),
            $number('truePeak', -20.0, 0.0),
            $number('clarity', 0.0, Aim::MOST_CLARITY),
            $fields->has('room') ? $fields->choice('room', Room::class) : null,
        );
    }

    /** @return non-empty-array<string, Decibels> */
    private static function faders(Fields $fields): array
    {
        $faders = [];
        foreach ($fields->objects('faders', Mix::MAX_TRACKS) as $fader) {
            $faders[$fader->string('track')] = $fader->level('fader', Decibels::MAX_FADER);
        }

        return [] === $faders ? throw InvalidDocument::wrongType('faders', 'a list with at least one entry') : $faders;
    }
}
