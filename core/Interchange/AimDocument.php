<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Problem;
use Wattage\Core\Time\Span;
use Wattage\Core\Timeline\Accepted;
use Wattage\Core\Timeline\Aim;

/** The part of the mix JSON that says what the programme is to reach. */
final class AimDocument
{
    /** @throws Problem */
    public static function read(Fields $fields): Aim
    {
        $fields->onlyHave('clearance', 'sensitivity', 'loudness', 'truePeak', 'accepted');
        $usual = new Aim();

        return new Aim(
            $fields->float('clearance', Aim::LEAST_CLEARANCE, Aim::MOST_CLEARANCE, $usual->clearance),
            $fields->float('sensitivity', Aim::LEAST_SENSITIVITY, Aim::MOST_SENSITIVITY, $usual->sensitivity),
            $fields->float('loudness', -60.0, 0.0, $usual->loudness),
            $fields->float('truePeak', -20.0, 0.0, $usual->truePeak),
            $fields->has('accepted') ? array_map(static fn (Fields $a): Accepted => new Accepted(Span::of($a->int('from'), $a->int('to', 1)), $a->has('note') ? $a->string('note') : ''), $fields->objects('accepted')) : [],
        );
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
        ];
    }
}
