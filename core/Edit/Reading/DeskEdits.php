<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Reading;

use Wattage\Core\Edit\ClearLane;
use Wattage\Core\Edit\ConvertLane;
use Wattage\Core\Edit\CopyLane;
use Wattage\Core\Edit\Duck;
use Wattage\Core\Edit\Edit;
use Wattage\Core\Edit\InvalidEdit;
use Wattage\Core\Edit\LanePart;
use Wattage\Core\Edit\ReleaseHeld;
use Wattage\Core\Edit\RemovePanPoints;
use Wattage\Core\Edit\Ride;
use Wattage\Core\Edit\SetBusFader;
use Wattage\Core\Edit\SetFaders;
use Wattage\Core\Edit\SetLanesOff;
use Wattage\Core\Edit\SetMuteRange;
use Wattage\Core\Edit\SetPanPoint;
use Wattage\Core\Edit\SetPanRange;
use Wattage\Core\Edit\SetPartInDucking;
use Wattage\Core\Interchange\Fields;
use Wattage\Core\Interchange\InvalidDocument;
use Wattage\Core\Interchange\MixDocument;
use Wattage\Core\Interchange\RuleDocument;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Ride\Merge;
use Wattage\Core\Ride\Mode;
use Wattage\Core\Ride\Pass;
use Wattage\Core\Ride\Sample;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Lane;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** Edits of faders and lanes: rides, ducking, and what becomes of both. */
final class DeskEdits
{
    public static function read(string $kind, EditFields $read): ?Edit
    {
        $fields = $read->fields;

        return match ($kind) {
            'ride' => self::ride($read),
            'duck' => self::duck($read),
            'release-held' => new ReleaseHeld($fields->string('track'), self::range($read)),
            'set-part-in-ducking' => self::partInDucking($read),
            'set-faders' => new SetFaders(self::faders($fields)),
            'set-stem-fader' => new SetBusFader($fields->choice('stem', Stem::class), $fields->level('fader', Decibels::MAX_FADER)),
            'set-programme-fader' => new SetBusFader(null, $fields->level('fader', Decibels::MAX_FADER)),
            'set-lanes-off' => new SetLanesOff($fields->string('track'), $fields->bool('off')),
            'clear-lane' => new ClearLane($fields->string('track'), $fields->choice('lane', LanePart::class), self::range($read)),
            'copy-lane' => new CopyLane($fields->string('track'), $fields->choice('lane', LanePart::class), $read->names('to')),
            'set-pan-point' => self::panPoint($read),
            'remove-pan-points' => new RemovePanPoints($fields->string('track'), $fields->ints('points')),
            'set-pan-range' => new SetPanRange($fields->string('track'), $read->span(), $fields->float('pan', -1, 1), $read->length('ramp')),
            'set-mute-range' => new SetMuteRange($fields->string('track'), $read->span(), $fields->bool('muted')),
            'convert-lane' => new ConvertLane($fields->string('track'), self::home($fields, 'from'), self::home($fields, 'to')),
            default => null,
        };
    }

    private static function range(EditFields $read): ?Span
    {
        return $read->fields->has('from') ? $read->span() : null;
    }

    private static function home(Fields $fields, string $name): ?Lane
    {
        return 'clips' === $fields->string($name) ? null : $fields->choice($name, Lane::class);
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

    private static function partInDucking(EditFields $read): SetPartInDucking
    {
        $fields = $read->fields;
        $fields->has('triggers') || $fields->has('ducked') || throw InvalidEdit::nothingToSet('triggers, ducked');

        return new SetPartInDucking($read->clips(), $fields->has('triggers') ? $fields->bool('triggers') : null, $fields->has('ducked') ? $fields->bool('ducked') : null);
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

    private static function duck(EditFields $read): Duck
    {
        $fields = $read->fields;
        $lanes = [];
        foreach ($fields->objects('lanes', Mix::MAX_TRACKS) as $lane) {
            $lanes[$lane->string('track')] = MixDocument::curve($lane);
        }

        return new Duck(
            $fields->has('rule') ? RuleDocument::read($fields->object('rule'), $read->mix->rate) : null,
            $fields->has('without') ? $fields->string('without') : null,
            $lanes,
        );
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
        $merge = new Merge($fields->float('tolerance', 0.0, 6.0, 0.25), $seconds('spacing', 0.5, 0.1), $seconds('glide', 5.0, 0.2), $apart);

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
}
