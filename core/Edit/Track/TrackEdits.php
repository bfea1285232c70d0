<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Track;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Interchange\ColourDocument;
use Wattage\Core\Timeline\Hue;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Stem;

/** Edits of tracks as such. */
final class TrackEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'add-track' => static fn (EditFields $read): Edit => new AddTrack(Name::checkId($read->fields->string('track'), 'track'), Name::check($read->fields->string('name')), $read->fields->choice('stem', Stem::class)),
            'remove-track' => static fn (EditFields $read): Edit => new RemoveTrack($read->fields->string('track')),
            'place-track' => static fn (EditFields $read): Edit => new PlaceTrack($read->fields->string('track'), $read->fields->int('place', 0, Mix::MAX_TRACKS)),
            'rename-track' => static fn (EditFields $read): Edit => new RenameTrack($read->fields->string('track'), Name::check($read->fields->string('name'))),
            'set-stem' => static fn (EditFields $read): Edit => new SetStem($read->fields->string('track'), $read->fields->choice('stem', Stem::class)),
            'set-muted' => static fn (EditFields $read): Edit => new SetMuted($read->fields->string('track'), $read->fields->bool('muted')),
            'set-locked' => static fn (EditFields $read): Edit => new SetLocked($read->fields->string('track'), $read->fields->bool('locked')),
            'set-track-colour' => static fn (EditFields $read): Edit => new SetTrackColour($read->fields->string('track'), ColourDocument::read($read->fields->object('colour'))),
            'set-hue' => static fn (EditFields $read): Edit => new SetHue($read->fields->string('track'), $read->fields->has('hue') ? $read->fields->choice('hue', Hue::class) : null),
        ];
    }
}
