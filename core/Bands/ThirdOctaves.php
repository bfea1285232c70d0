<?php

declare(strict_types=1);

namespace Wattage\Core\Bands;

/** The third-octave bands that speech is understood by: 160 Hz to 8 kHz, as ANSI S3.5-1997 has them, edges by IEC 61260-1 (base ten). */
final class ThirdOctaves
{
    public const COUNT = 18;

    /** Nominal centres, Hz. */
    public const CENTRES = [160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150, 4000, 5000, 6300, 8000];

    /** The band at 1 kHz. */
    private const AT_1000 = 8;

    /** @return float Hz, exact centre of a band, 0 … 17 */
    public static function centre(int $band): float
    {
        return 1000.0 * 10.0 ** (($band - self::AT_1000) / 10.0);
    }

    /** @return float Hz, where a band begins and the one below it ends; 18 for where the highest ends */
    public static function edge(int $band): float
    {
        return 1000.0 * 10.0 ** (($band - self::AT_1000 - 0.5) / 10.0);
    }

    /**
     * How many bands a recording has at all.
     *
     * @param int $rate samples per second that it was recorded at
     */
    public static function within(int $rate): int
    {
        $count = 0;
        while ($count < self::COUNT && self::edge($count + 1) <= $rate / 2) {
            ++$count;
        }

        return $count;
    }
}
