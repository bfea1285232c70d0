<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Reading;

use Wattage\Core\Curve\Notch;
use Wattage\Core\Edit\AddKeyframe;
use Wattage\Core\Edit\CopyNeighbour;
use Wattage\Core\Edit\DipRange;
use Wattage\Core\Edit\Dips;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\MoveKeyframes;
use Wattage\Core\Edit\RemoveKeyframes;
use Wattage\Core\Edit\ResetRange;
use Wattage\Core\Edit\SetKeyframe;
use Wattage\Core\Edit\SetKeyframes;
use Wattage\Core\Edit\SetRange;
use Wattage\Core\Edit\Tame;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Wire;

/** Edits of level wires: keyframes, ranges, peaks. */
final class LevelEdits
{
    private const LONGEST_RAMP = 60 * 96_000;

    public static function read(string $kind, EditFields $read): ?Edit
    {
        $fields = $read->fields;

        return match ($kind) {
            'add-keyframe' => new AddKeyframe($read->wire(), $read->time('at'), $fields->has('level') ? $fields->level('level') : null),
            'set-keyframe' => self::setKeyframe($read),
            'set-keyframes' => self::setKeyframes($read),
            'copy-neighbour' => new CopyNeighbour($read->chosen(), self::isPrevious($fields)),
            'move-keyframes' => new MoveKeyframes($read->chosen(), $read->later(), Decibels::of($fields->float('by', -144, 144))),
            'remove-keyframes' => new RemoveKeyframes($read->chosen()),
            'dip-range' => self::dip($read),
            'set-range' => new SetRange($read->wires(), $read->span(), $fields->level('level'), self::ramp($read), $fields->bool('inside', false)),
            'reset-range' => new ResetRange($read->wires(), $read->span(), self::ramp($read), $fields->bool('inside', false)),
            'dips' => new Dips(self::dips($read)),
            'tame' => new Tame(self::notches($read)),
            default => null,
        };
    }

    private static function ramp(EditFields $read): int
    {
        return $read->length('ramp', 0, self::LONGEST_RAMP);
    }

    private static function setKeyframe(EditFields $read): SetKeyframe
    {
        $fields = $read->fields;

        return new SetKeyframe(
            $read->wire(),
            $fields->int('keyframe'),
            $fields->has('at') ? $read->time('at') : null,
            $fields->has('level') ? $fields->level('level') : null,
            $fields->has('ramp') ? MixDocument::ramp($fields, 'ramp') : null,
        );
    }

    private static function setKeyframes(EditFields $read): SetKeyframes
    {
        $fields = $read->fields;
        $fields->has('level') || $fields->has('ramp') || throw InvalidEdit::nothingToSet('level, ramp');

        return new SetKeyframes($read->chosen(), $fields->has('level') ? $fields->level('level') : null, $fields->has('ramp') ? MixDocument::ramp($fields, 'ramp') : null);
    }

    private static function isPrevious(Fields $fields): bool
    {
        return match ($fields->string('from')) {
            'previous' => true,
            'next' => false,
            default => throw InvalidDocument::wrongType('from', 'previous or next'),
        };
    }

    private static function dip(EditFields $read): DipRange
    {
        return new DipRange($read->wires(), $read->span(), $read->difference('by', -96, 48), self::ramp($read), $read->fields->bool('inside', false));
    }

    /** @return non-empty-list<DipRange> */
    private static function dips(EditFields $read): array
    {
        $dips = array_map(static fn (Fields $dip): DipRange => self::dip(new EditFields($dip, $read->mix, [])), $read->fields->objects('dips', Dips::MOST));

        return [] === $dips ? throw InvalidDocument::wrongType('dips', 'a list with at least one entry') : $dips;
    }

    /** @return non-empty-list<array{Wire, Notch}> */
    private static function notches(EditFields $read): array
    {
        $notches = array_map(static fn (Fields $notch): array => [
            $read->wire($notch),
            new Notch($notch->int('at'), $notch->float('by', -96, 0), $notch->int('before', 1, 96_000), $notch->int('after', 1, 96_000), $notch->int('hold', 0, default: 0)),
        ], $read->fields->objects('notches', Tame::MOST));

        return [] === $notches ? throw InvalidDocument::wrongType('notches', 'a list with at least one entry') : $notches;
    }
}
