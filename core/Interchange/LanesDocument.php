<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Curve\Curve;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Problem;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Anchor;
use Wattage\Core\Timeline\Ducking;
use Wattage\Core\Timeline\Faders;
use Wattage\Core\Timeline\Lanes;
use Wattage\Core\Timeline\MuteLane;
use Wattage\Core\Timeline\PanLane;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Track;

/** The parts of the mix JSON in which tracks move by themselves: lanes, ducking, and the faders after them. */
final class LanesDocument
{
    /** @throws Problem */
    public static function lanes(Fields $fields): Lanes
    {
        $fields->onlyHave('level', 'pan', 'mute', 'off');

        return new Lanes(
            $fields->has('level') ? CurveDocument::read($fields, 'level') : Curve::flat(),
            self::pan($fields),
            self::mute($fields),
            $fields->bool('off', false),
        );
    }

    /** @throws Problem */
    public static function pan(Fields $fields): PanLane
    {
        return new PanLane(!$fields->has('pan') ? [] : array_map(static fn (Fields $p): array => [$p->int('at'), $p->float('pan', -1, 1)], $fields->objects('pan')));
    }

    /** @throws Problem */
    public static function mute(Fields $fields): MuteLane
    {
        return new MuteLane(!$fields->has('mute') ? [] : array_map(static fn (Fields $p): array => [$p->int('at'), $p->bool('muted')], $fields->objects('mute')));
    }

    /** @throws Problem */
    public static function ducking(Fields $fields): Ducking
    {
        $fields->onlyHave('curve', 'held');

        $held = $anchors = [];
        foreach ($fields->has('held') ? $fields->objects('held') : [] as $one) {
            $one->onlyHave('from', 'to', 'source', 'position');
            $held[] = $span = Span::of($one->int('from'), $one->int('to', 1));
            $one->has('source') && $anchors[$span->from] = new Anchor($one->string('source'), $one->int('position'));
        }

        return new Ducking($fields->has('curve') ? CurveDocument::read($fields) : Curve::flat(), $held, $anchors);
    }

    /** @return array<string, mixed> what of a track moves */
    public static function toArray(Track $track): array
    {
        $lanes = $track->lanes;
        $written = [
            ...($lanes->level->isFlat() ? [] : ['level' => CurveDocument::toArray($lanes->level)]),
            ...($lanes->pan->isEmpty() ? [] : ['pan' => array_map(static fn (array $p): array => ['at' => $p[0], 'pan' => $p[1]], $lanes->pan->points)]),
            ...($lanes->mute->isEmpty() ? [] : ['mute' => array_map(static fn (array $p): array => ['at' => $p[0], 'muted' => $p[1]], $lanes->mute->switches)]),
            ...($lanes->off ? ['off' => true] : []),
        ];

        return [
            ...([] === $written ? [] : ['lanes' => $written]),
            ...($track->ducking->isEmpty() ? [] : ['ducking' => self::duckingToArray($track->ducking)]),
            ...($track->band->isEmpty() ? [] : ['band' => self::duckingToArray($track->band)]),
        ];
    }

    /** @return array<string, mixed> */
    private static function duckingToArray(Ducking $ducking): array
    {
        return ['curve' => CurveDocument::toArray($ducking->curve), ...([] === $ducking->held ? [] : ['held' => array_map(static function (Span $span) use ($ducking): array {
            $anchor = $ducking->anchors[$span->from] ?? null;

            return ['from' => $span->from, 'to' => $span->to, ...(null === $anchor ? [] : ['source' => $anchor->source, 'position' => $anchor->position])];
        }, $ducking->held)])];
    }

    /** @throws Problem */
    public static function faders(Fields $fields): Faders
    {
        $fields->onlyHave('programme', ...array_column(Stem::cases(), 'value'));
        $faders = new Faders(programme: $fields->level('programme', Decibels::MAX_FADER, Decibels::unchanged()));
        foreach (Stem::cases() as $stem) {
            $faders = $faders->with($stem, $fields->level($stem->value, Decibels::MAX_FADER, Decibels::unchanged()));
        }

        return $faders;
    }

    /** @return array<string, float|string> */
    public static function fadersToArray(Faders $faders): array
    {
        $written = ['programme' => CurveDocument::levelToJson($faders->programme)];
        foreach (Stem::cases() as $stem) {
            $written[$stem->value] = CurveDocument::levelToJson($faders->of($stem));
        }

        return $written;
    }

    /**
     * @return list<Span>
     *
     * @throws Problem
     */
    public static function spans(Fields $fields, string $name): array
    {
        return array_map(static fn (Fields $span): Span => Span::of($span->int('from'), $span->int('to', 1)), $fields->objects($name));
    }

    /**
     * @param list<Span> $spans
     *
     * @return list<array{from: int, to: int}>
     */
    public static function spansToArray(array $spans): array
    {
        return array_map(static fn (Span $span): array => ['from' => $span->from, 'to' => $span->to], $spans);
    }
}
