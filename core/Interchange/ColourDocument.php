<?php

declare(strict_types=1);

namespace Wattage\Core\Interchange;

use Wattage\Core\Filter\Colour;
use Wattage\Core\Filter\LowCut;
use Wattage\Core\Filter\Tone;
use Wattage\Core\Problem;

/** The colour of a clip or a track in the mix JSON. */
final class ColourDocument
{
    /** @throws Problem */
    public static function read(Fields $fields): Colour
    {
        $fields->onlyHave('lowCut', 'tone');

        return new Colour(
            $fields->has('lowCut') ? self::lowCut($fields->object('lowCut')) : null,
            $fields->has('tone') ? new Tone(array_map(static fn (Fields $part): array => [$part->float('hertz', Tone::LOWEST, Tone::HIGHEST), $part->float('db', -Tone::MOST, Tone::MOST)], $fields->objects('tone'))) : null,
        );
    }

    /** @throws Problem */
    private static function lowCut(Fields $fields): LowCut
    {
        $fields->onlyHave('hertz', 'slope');

        return new LowCut($fields->float('hertz', LowCut::LOWEST, LowCut::HIGHEST), $fields->int('slope', 12, 24, 12));
    }

    /** @return array<string, mixed> */
    public static function toArray(Colour $colour): array
    {
        return [
            ...(null === $colour->lowCut ? [] : ['lowCut' => ['hertz' => $colour->lowCut->hertz, 'slope' => $colour->lowCut->slope]]),
            ...(null === $colour->tone ? [] : ['tone' => array_map(static fn (array $part): array => ['hertz' => $part[0], 'db' => $part[1]], $colour->tone->parts)]),
        ];
    }
}
