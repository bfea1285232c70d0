<?php

declare(strict_types=1);

namespace Wattage\App\Media;

/** Where a picture cuts: where a frame differs from the one before by much more than those around it do. */
final class PictureCuts
{
    /** A difference below this is none, and one above the other always is one: parts of 1, as ffmpeg's scene score counts. By experience. */
    private const LEAST = 0.05;
    private const ALWAYS = 0.4;

    /** How many times the difference of the frames around it. */
    private const TIMES = 6.0;

    /** Frames on either side that are looked at. */
    private const AROUND = 12;

    /** Seconds within which there are no two: a flash is one. */
    private const APART = 0.3;

    /**
     * @param array<int|string, float> $scores how much each frame differs from the one before, 0 to 1, by its time in seconds, in order
     *
     * @return list<float> seconds
     */
    public static function in(array $scores): array
    {
        $times = array_map(floatval(...), array_keys($scores));
        $values = array_values($scores);
        $cuts = [];
        foreach ($values as $i => $score) {
            if ($score < self::LEAST || (0 !== \count($cuts) && $times[$i] - end($cuts) < self::APART)) {
                continue;
            }
            $around = \array_slice($values, max(0, $i - self::AROUND), 2 * self::AROUND + 1);
            $others = (array_sum($around) - $score) / max(1, \count($around) - 1);
            if ($score >= self::ALWAYS || $score > self::TIMES * $others) {
                $cuts[] = $times[$i];
            }
        }

        return $cuts;
    }
}
