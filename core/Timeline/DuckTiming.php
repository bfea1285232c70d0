<?php

declare(strict_types=1);

namespace Wattage\Core\Timeline;

/** When a dip begins and ends around speech. All in samples. */
final readonly class DuckTiming
{
    public const LONGEST_SECONDS = 10.0;

    /**
     * @param int $lead fully down this long before the speech
     * @param int $fall ramp down
     * @param int $rise ramp back up
     * @param int $hold stays down this long after the speech
     * @param int $bridge a shorter pause does not come back up
     * @param int $ignore shorter speech does not count
     */
    public function __construct(public int $lead, public int $fall, public int $rise, public int $hold, public int $bridge, public int $ignore)
    {
    }

    /** Common practice. */
    public static function usual(int $rate): self
    {
        return self::seconds($rate, 0.1, 0.4, 0.9, 0.3, 0.8, 0.15);
    }

    public static function seconds(int $rate, float $lead, float $fall, float $rise, float $hold, float $bridge, float $ignore): self
    {
        return new self(...array_map(static fn (float $seconds): int => (int) round($seconds * $rate), [$lead, $fall, $rise, $hold, $bridge, $ignore]));
    }
}
