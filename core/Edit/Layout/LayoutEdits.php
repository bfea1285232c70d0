<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Layout;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Time\FrameRate;
use Wattage\Core\Timeline\Marker;
use Wattage\Core\Timeline\Name;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** Edits of where clips and markers stand. */
final class LayoutEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'set-frame-rate' => static fn (EditFields $read): Edit => new SetFrameRate(FrameRate::named($read->fields->string('frameRate'))),
            'add-marker' => static fn (EditFields $read): Edit => new AddMarker(new Marker(Name::checkId($read->fields->string('marker'), 'marker'), $read->time('at'), Name::check($read->fields->string('name')))),
            'set-marker' => static fn (EditFields $read): Edit => self::setMarker($read),
            'remove-markers' => static fn (EditFields $read): Edit => new RemoveMarkers($read->names('markers')),
            'add-clip' => static fn (EditFields $read): Edit => self::addClip($read),
            'remove-clips' => static fn (EditFields $read): Edit => new RemoveClips($read->clips(), $read->fields->bool('close', false)),
            'remove-range' => static fn (EditFields $read): Edit => new RemoveRange($read->span(), $read->tracks(), $read->fields->bool('close', false)),
            'insert-time' => static fn (EditFields $read): Edit => new InsertTime($read->time('at'), $read->length('length', 1), $read->tracks()),
            'move-clip' => static fn (EditFields $read): Edit => new MoveClip($read->fields->string('clip'), $read->fields->string('track'), $read->time('at')),
            'move-clips' => static fn (EditFields $read): Edit => new MoveClips($read->clips(), $read->later(), $read->fields->bool('ripple', false)),
            'trim-clip' => static fn (EditFields $read): Edit => new TrimClip($read->fields->string('clip'), $read->span(), $read->fields->bool('ripple', false)),
            'slip-clip' => static fn (EditFields $read): Edit => new SlipClip($read->fields->string('clip'), $read->later()),
            'split' => static fn (EditFields $read): Edit => new Split(self::cuts($read)),
            'join-clips' => static fn (EditFields $read): Edit => new JoinClips($read->clips()),
            'duplicate-clips' => static fn (EditFields $read): Edit => new DuplicateClips($read->clips(), $read->fields->has('later') ? $read->later() : null),
            'loop-clip' => static fn (EditFields $read): Edit => new LoopClip($read->fields->string('clip'), $read->time('until'), $read->length('overlap', default: 0)),
        ];
    }

    private static function setMarker(EditFields $read): SetMarker
    {
        $fields = $read->fields;
        $fields->has('at') || $fields->has('name') || throw InvalidEdit::nothingToSet('at, name');

        return new SetMarker($fields->string('marker'), $fields->has('at') ? $read->time('at') : null, $fields->has('name') ? Name::check($fields->string('name')) : null);
    }

    private static function addClip(EditFields $read): AddClip
    {
        $fields = $read->fields;
        $source = $read->source();
        $in = $fields->int('in', 0, $source->length - 1, 0);

        return new AddClip(
            $fields->string('track'),
            Name::checkId($fields->string('clip'), 'clip'),
            $source,
            $read->time('at'),
            $in,
            $fields->int('length', 1, $source->length - $in, $source->length - $in),
            $fields->has('stem') ? Track::named($fields->string('track'), $fields->has('name') ? $fields->string('name') : $source->name, $fields->choice('stem', Stem::class)) : null,
        );
    }

    /** @return non-empty-list<array{string, int}> */
    private static function cuts(EditFields $read): array
    {
        $cuts = array_map(static fn (Fields $cut): array => [$cut->string('clip'), $cut->int('at')], $read->fields->objects('cuts', Split::MOST_CUTS));

        return [] === $cuts ? throw InvalidDocument::wrongType('cuts', 'a list with at least one entry') : $cuts;
    }
}
