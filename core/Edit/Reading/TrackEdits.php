<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Reading;

use Wattage\Core\Captions\CaptionFile;
use Wattage\Core\Edit\AcceptBuried;
use Wattage\Core\Edit\AddMarker;
use Wattage\Core\Edit\AddTrack;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\LevelSource;
use Wattage\Core\Edit\LinkSource;
use Wattage\Core\Edit\PlaceTrack;
use Wattage\Core\Edit\RemoveMarkers;
use Wattage\Core\Edit\RemoveTrack;
use Wattage\Core\Edit\RenameTrack;
use Wattage\Core\Edit\SetAim;
use Wattage\Core\Edit\SetCaptions;
use Wattage\Core\Edit\SetFader;
use Wattage\Core\Edit\SetFrameRate;
use Wattage\Core\Edit\SetHue;
use Wattage\Core\Edit\SetLocked;
use Wattage\Core\Edit\SetMarker;
use Wattage\Core\Edit\SetMuted;
use Wattage\Core\Edit\SetPan;
use Wattage\Core\Edit\SetSourceGain;
use Wattage\Core\Edit\SetSourceGains;
use Wattage\Core\Edit\SetStem;
use Wattage\Core\Edit\SetZone;
use Wattage\Core\Interchange\AimDocument;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Hue;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Stem;

/** Edits of tracks, sources and markers. */
final class TrackEdits
{
    public static function read(string $kind, EditFields $read): ?Edit
    {
        $fields = $read->fields;

        return match ($kind) {
            'add-track' => new AddTrack(Name::checkId($fields->string('track'), 'track'), Name::check($fields->string('name')), $fields->choice('stem', Stem::class)),
            'remove-track' => new RemoveTrack($fields->string('track')),
            'place-track' => new PlaceTrack($fields->string('track'), $fields->int('place', 0, Mix::MAX_TRACKS)),
            'rename-track' => new RenameTrack($fields->string('track'), Name::check($fields->string('name'))),
            'set-stem' => new SetStem($fields->string('track'), $fields->choice('stem', Stem::class)),
            'set-fader' => new SetFader($fields->string('track'), $fields->level('fader', Decibels::MAX_FADER), $fields->has('linked') ? $fields->strings('linked') : []),
            'set-pan' => new SetPan($fields->string('track'), $fields->float('pan', -1, 1)),
            'set-muted' => new SetMuted($fields->string('track'), $fields->bool('muted')),
            'set-locked' => new SetLocked($fields->string('track'), $fields->bool('locked')),
            'set-hue' => new SetHue($fields->string('track'), $fields->has('hue') ? $fields->choice('hue', Hue::class) : null),
            'set-captions' => self::setCaptions($read),
            'set-aim' => self::setAim($fields),
            'set-zone' => new SetZone($fields->choice('stem', Stem::class), $fields->has('high') ? AimDocument::readZone($fields) : null),
            'accept-buried' => new AcceptBuried($read->span(), $fields->has('note') ? $fields->string('note') : null),
            'set-frame-rate' => new SetFrameRate(FrameRate::named($fields->string('frameRate'))),
            'set-source-gain' => new SetSourceGain($read->source(), $fields->level('gain'), $read->side()),
            'set-source-gains' => new SetSourceGains(self::sourceGains($read)),
            'level-source' => new LevelSource($read->source(), $fields->float('average', -200, 24), $fields->float('target', -60, 0)),
            'link-source' => new LinkSource($read->source(), $fields->bool('linked')),
            'add-marker' => new AddMarker(new Marker(Name::checkId($fields->string('marker'), 'marker'), $read->time('at'), Name::check($fields->string('name')))),
            'set-marker' => self::setMarker($read),
            'remove-markers' => new RemoveMarkers($read->names('markers')),
            default => null,
        };
    }

    /** @return non-empty-list<SetSourceGain> */
    private static function sourceGains(EditFields $read): array
    {
        $gains = array_map(static fn (Fields $gain): SetSourceGain => new SetSourceGain($read->source($gain), $gain->level('gain')), $read->fields->objects('gains', EditFields::MAX_AT_ONCE));

        return [] === $gains ? throw InvalidDocument::wrongType('gains', 'a list with at least one entry') : $gains;
    }

    private static function setCaptions(EditFields $read): SetCaptions
    {
        $text = $read->fields->string('text');
        if ('' === $text) {
            return new SetCaptions([]);
        }
        $file = CaptionFile::read($text, $read->mix->rate);

        return new SetCaptions($file->cues, \count($file->leftOut));
    }

    private static function setAim(Fields $fields): SetAim
    {
        $has = array_filter(['clearance', 'sensitivity', 'loudness', 'truePeak'], $fields->has(...));
        [] !== $has || throw InvalidEdit::nothingToSet('clearance, sensitivity, loudness, truePeak');
        $number = static fn (string $name, float $min, float $max): ?float => $fields->has($name) ? $fields->float($name, $min, $max) : null;

        return new SetAim(
            $number('clearance', Aim::LEAST_CLEARANCE, Aim::MOST_CLEARANCE),
            $number('sensitivity', Aim::LEAST_SENSITIVITY, Aim::MOST_SENSITIVITY),
            $number('loudness', -60.0, 0.0),
            $number('truePeak', -20.0, 0.0),
        );
    }

    private static function setMarker(EditFields $read): SetMarker
    {
        $fields = $read->fields;
        $fields->has('at') || $fields->has('name') || throw InvalidEdit::nothingToSet('at, name');

        return new SetMarker($fields->string('marker'), $fields->has('at') ? $read->time('at') : null, $fields->has('name') ? Name::check($fields->string('name')) : null);
    }
}
