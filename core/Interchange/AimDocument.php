<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Problem;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Accepted;
use Wattage\Core\Timeline\Aim;
use Wattage\Core\Timeline\Room;
use Wattage\Core\Timeline\Stem;
use Wattage\Core\Timeline\Zone;

/** The part of the mix JSON that says what the programme is to reach. */
final class AimDocument
{
    /** @throws Problem */
    public static function read(Fields $fields): Aim
    {
        $fields->onlyHave('clearance', 'sensitivity', 'loudness', 'truePeak', 'accepted', 'zones', 'clarity', 'room');
        $usual = new Aim();

        return new Aim(
            $fields->float('clearance', Aim::LEAST_CLEARANCE, Aim::MOST_CLEARANCE, $usual->clearance),
            $fields->float('sensitivity', Aim::LEAST_SENSITIVITY, Aim::MOST_SENSITIVITY, $usual->sensitivity),
            $fields->float('loudness', -60.0, 0.0, $usual->loudness),
            $fields->float('truePeak', -20.0, 0.0, $usual->truePeak),
            $fields->has('accepted') ? array_map(static fn (Fields $a): Accepted => new Accepted(Span::of($a->int('from'), $a->int('to', 1)), $a->has('note') ? $a->string('note') : ''), $fields->objects('accepted')) : [],
            $fields->has('zones') ? self::readZones($fields->object('zones')) : [],
            $fields->float('clarity', 0.0, Aim::MOST_CLARITY, $usual->clarity),
            $fields->has('room') ? $fields->choice('room', Room::class) : $usual->room,
        );
    }

    /**
     * @return array<string, Zone> by stem
     *
     * @throws Problem
     */
    private static function readZones(Fields $fields): array
    {
        $fields->onlyHave(...array_column(Stem::cases(), 'value'));
        $zones = [];
        foreach (Stem::cases() as $stem) {
            if ($fields->has($stem->value)) {
                $zones[$stem->value] = self::readZone($fields->object($stem->value));
            }
        }
        ksort($zones);

        return $zones;
    }

    /** @throws Problem */
    public static function readZone(Fields $fields): Zone
    {
        return new Zone($fields->has('low') ? $fields->float('low', Zone::LOWEST, Zone::HIGHEST) : null, $fields->float('high', Zone::LOWEST, Zone::HIGHEST));
    }

    /** @return array<string, mixed> */
    public static function toArray(Aim $aim): array
    {
        return [
            'clearance' => $aim->clearance,
            'sensitivity' => $aim->sensitivity,
            'loudness' => $aim->loudness,
            'truePeak' => $aim->truePeak,
            'accepted' => array_map(static fn (Accepted $a): array => ['from' => $a->span->from, 'to' => $a->span->to, 'note' => $a->note], $aim->accepted),
            ...([] === $aim->zones ? [] : ['zones' => array_map(self::zoneToArray(...), $aim->zones)]),
            'clarity' => $aim->clarity,
            'room' => $aim->room->value,
        ];
    }

    /** @return array<string, float> */
    public static function zoneToArray(Zone $zone): array
    {
        return [...(null === $zone->low ? [] : ['low' => $zone->low]), 'high' => $zone->high];
    }
}
