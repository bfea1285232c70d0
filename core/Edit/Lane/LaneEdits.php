<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Lane;

use Closure;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\EditFields;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Ride\Merge;
use Wattage\Core\Ride\Mode;
use Wattage\Core\Ride\Pass;
use Wattage\Core\Ride\Sample;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Lane;
use Wattage\Core\Timeline\Mix;

/** Edits of what a track's faders do over time: rides, level, pan and mute lanes. */
final class LaneEdits
{
    /** @return array<string, Closure(EditFields): Edit> by kind */
    public static function readers(): array
    {
        return [
            'ride' => static fn (EditFields $read): Edit => self::ride($read),
            'set-lanes-off' => static fn (EditFields $read): Edit => new SetLanesOff($read->fields->string('track'), $read->fields->bool('off')),
            'clear-lane' => static fn (EditFields $read): Edit => new ClearLane($read->fields->string('track'), $read->fields->choice('lane', LanePart::class), self::range($read)),
            'copy-lane' => static fn (EditFields $read): Edit => new CopyLane($read->fields->string('track'), $read->fields->choice('lane', LanePart::class), $read->names('to')),
            'set-pan-point' => static fn (EditFields $read): Edit => self::panPoint($read),
            'remove-pan-points' => static fn (EditFields $read): Edit => new RemovePanPoints($read->fields->string('track'), $read->fields->ints('points')),
            'set-pan-range' => static fn (EditFields $read): Edit => new SetPanRange($read->fields->string('track'), $read->span(), $read->fields->float('pan', -1, 1), $read->length('ramp')),
            'set-mute-range' => static fn (EditFields $read): Edit => new SetMuteRange($read->fields->string('track'), $read->span(), $read->fields->bool('muted')),
            'convert-lane' => static fn (EditFields $read): Edit => new ConvertLane($read->fields->string('track'), self::home($read->fields, 'from'), self::home($read->fields, 'to')),
        ];
    }

    private static function ride(EditFields $read): Ride
    {
        $fields = $read->fields;
        $passes = array_map(self::pass(...), $fields->objects('passes', Mix::MAX_TRACKS));
        $rate = $read->mix->rate;
        $seconds = static fn (string $name, float $most, float $usual): int => (int) round($rate * $fields->float($name, 0.0, $most, $usual));
        $apart = match ($fields->string('holds', 'tolerance')) {
            'tolerance' => false,
            'spacing' => true,
            default => throw InvalidDocument::wrongType('holds', 'tolerance or spacing'),
        };
        $merge = new Merge($fields->float('tolerance', 0.0, Merge::MOST_TOLERANCE, Merge::USUAL_TOLERANCE), $seconds('spacing', Merge::WIDEST_SPACING, Merge::USUAL_SPACING), $seconds('glide', Merge::LONGEST_GLIDE, Merge::USUAL_GLIDE), $apart);

        return new Ride([] === $passes ? throw InvalidDocument::wrongType('passes', 'a list with at least one entry') : $passes, $merge, $apart);
    }

    private static function pass(Fields $fields): Pass
    {
        $start = $fields->int('start');
        $stop = $fields->int('stop');
        $stop > $start || throw InvalidEdit::passOfNoLength($fields->path('stop'));

        return new Pass(
            $fields->string('track'),
            $fields->choice('mode', Mode::class),
            $start,
            $stop,
            self::samples($fields, 'level'),
            self::samples($fields, 'pan'),
            self::samples($fields, 'mute'),
        );
    }

    /**
     * Rows of moment, value and 1 or 0 for a hand on it. There are thousands, so they are read without a Fields for each.
     *
     * @return list<Sample>
     */
    private static function samples(Fields $fields, string $name): array
    {
        if (!$fields->has($name)) {
            return [];
        }
        $rows = $fields->list($name);
        \count($rows) <= Pass::MAX_SAMPLES || throw InvalidEdit::tooMany($fields->path($name), Pass::MAX_SAMPLES);
        $samples = [];
        foreach ($rows as $i => $row) {
            if (!\is_array($row) || !\is_int($at = $row[0] ?? null) || !(\is_int($value = $row[1] ?? null) || \is_float($value)) || !is_finite((float) $value)) {
                throw InvalidDocument::wrongType($fields->path("{$name}[{$i}]"), 'a moment in samples, a number, and 1 or 0 for a hand on it');
            }
            $samples[] = new Sample($at, (float) $value, (bool) ($row[2] ?? true));
        }

        return $samples;
    }

    private static function range(EditFields $read): ?Span
    {
        return $read->fields->has('from') ? $read->span() : null;
    }

    private static function panPoint(EditFields $read): SetPanPoint
    {
        $fields = $read->fields;
        $point = $fields->has('point') ? $fields->int('point') : null;
        null !== $point && !$fields->has('at') && !$fields->has('pan') && throw InvalidEdit::nothingToSet('at, pan');

        return new SetPanPoint(
            $fields->string('track'),
            $point,
            null === $point || $fields->has('at') ? $read->time('at') : null,
            $fields->has('pan') ? $fields->float('pan', -1, 1) : null,
        );
    }

    private static function home(Fields $fields, string $name): ?Lane
    {
        return 'clips' === $fields->string($name) ? null : $fields->choice($name, Lane::class);
    }
}
