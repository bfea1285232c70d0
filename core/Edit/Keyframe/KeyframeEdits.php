<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Keyframe;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\CurveDocument;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Level\Decibels;

/** Edits of the keyframes of a level wire. */
final class KeyframeEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'add-keyframe' => static fn (EditFields $read): Edit => new AddKeyframe($read->wire(), $read->time('at'), $read->fields->has('level') ? $read->fields->level('level') : null),
            'set-keyframe' => static fn (EditFields $read): Edit => self::setKeyframe($read),
            'set-keyframes' => static fn (EditFields $read): Edit => self::setKeyframes($read),
            'copy-neighbour' => static fn (EditFields $read): Edit => new CopyNeighbour($read->chosen(), self::isPrevious($read->fields)),
            'move-keyframes' => static fn (EditFields $read): Edit => new MoveKeyframes($read->chosen(), $read->later(), Decibels::of($read->fields->float('by', -144, 144))),
            'remove-keyframes' => static fn (EditFields $read): Edit => new RemoveKeyframes($read->chosen()),
        ];
    }

    private static function setKeyframe(EditFields $read): SetKeyframe
    {
        $fields = $read->fields;

        return new SetKeyframe(
            $read->wire(),
            $fields->int('keyframe'),
            $fields->has('at') ? $read->time('at') : null,
            $fields->has('level') ? $fields->level('level') : null,
            $fields->has('ramp') ? CurveDocument::ramp($fields, 'ramp') : null,
        );
    }

    private static function setKeyframes(EditFields $read): SetKeyframes
    {
        $fields = $read->fields;
        $fields->has('level') || $fields->has('ramp') || throw InvalidEdit::nothingToSet('level, ramp');

        return new SetKeyframes($read->chosen(), $fields->has('level') ? $fields->level('level') : null, $fields->has('ramp') ? CurveDocument::ramp($fields, 'ramp') : null);
    }

    private static function isPrevious(Fields $fields): bool
    {
        return match ($fields->string('from')) {
            'previous' => true,
            'next' => false,
            default => throw InvalidDocument::wrongType('from', 'previous or next'),
        };
    }
}
