<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Range;

use Closure;
use Wattage\Core\Curve\Notch;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Timeline\Wire;

/** Edits of the level over a range of time, and of single peaks. */
final class RangeEdits
{
    public const LONGEST_RAMP = 60 * 96_000;
    /** dB by which a range may be dipped, or lifted. */
    public const DEEPEST_DIP = -96;
    public const HIGHEST_LIFT = 48;

    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'dip-range' => static fn (EditFields $read): Edit => self::dip($read),
            'set-range' => static fn (EditFields $read): Edit => new SetRange($read->wires(), $read->span(), $read->fields->level('level'), self::ramp($read), $read->fields->bool('inside', false)),
            'reset-range' => static fn (EditFields $read): Edit => new ResetRange($read->wires(), $read->span(), self::ramp($read), $read->fields->bool('inside', false)),
            'dips' => static fn (EditFields $read): Edit => new Dips(self::dips($read)),
            'tame' => static fn (EditFields $read): Edit => new Tame(self::notches($read)),
        ];
    }

    private static function dip(EditFields $read): DipRange
    {
        return new DipRange($read->wires(), $read->span(), $read->difference('by', self::DEEPEST_DIP, self::HIGHEST_LIFT), self::ramp($read), $read->fields->bool('inside', false));
    }

    private static function ramp(EditFields $read): int
    {
        return $read->length('ramp', 0, self::LONGEST_RAMP);
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
