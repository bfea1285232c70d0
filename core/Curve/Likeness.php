<?php

declare(strict_types=1);

namespace Wattage\Core\Curve;

/** Whether two curves sound alike, however they are made up. */
final class Likeness
{
    /** dB that nobody hears. */
    private const TOLERANCE = 0.05;

    private const SILENT = -100.0;

    public static function of(Curve $a, Curve $b): bool
    {
        $positions = array_map(static fn (Keyframe $k): int => $k->position, [...$a->keyframes, ...$b->keyframes]);
        $positions = array_values(array_unique($positions));
        sort($positions);
        foreach ($positions as $i => $at) {
            $middle = intdiv($at + ($positions[$i + 1] ?? $at), 2);
            if (!self::alike($a, $b, $at) || !self::alike($a, $b, $middle)) {
                return false;
            }
        }

        return true;
    }

    private static function alike(Curve $a, Curve $b, int $at): bool
    {
        return abs(max(self::SILENT, $a->levelAt($at)->db) - max(self::SILENT, $b->levelAt($at)->db)) <= self::TOLERANCE;
    }
}
