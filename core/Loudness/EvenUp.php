<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Closure;
use Wattage\Core\Level\Decibels;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Stem;

/** Brings whole clips to one level by their gain. */
final readonly class EvenUp
{
    /** Average level while preparing, dBFS; common practice. */
    private const SPEECH = -20.0;
    private const BACKGROUND = -30.0;

    /** dBFS that can be asked for. */
    public const LOWEST = -60.0;
    public const HIGHEST = 0.0;
    public const LOWEST_CEILING = -20.0;
    public const USUAL_CEILING = -1.0;

    /**
     * @param bool $byPeak whether the highest sample counts and not the gated average
     * @param ?float $target dBFS; null for that of each clip's stem
     * @param float $ceiling dBFS that no sample may pass afterwards
     */
    public function __construct(private bool $byPeak, private ?float $target, private float $ceiling)
    {
    }

    /**
     * @param non-empty-list<string> $clips
     * @param Closure(string): ?SourceTenths $tenthsOf by source id
     *
     * @return list<array{clip: string, now: ?float, target: float, gain: ?float, by: ?float, after: ?float, limit: ?string}> in dB;
     *                                                                                                                        what is silent, or not measured yet, stays: gain null. Limit: "gain" or "peak" where one of them ended it early
     */
    public function of(Mix $mix, array $clips, Closure $tenthsOf): array
    {
        return array_map(function (string $id) use ($mix, $tenthsOf): array {
            $clip = $mix->clip($id);
            $tenths = $tenthsOf($clip->source);
            $power = null === $tenths ? null : ClipPower::of($mix, $clip, $tenths);
            $peak = $power?->peak();
            $now = $this->byPeak ? $peak : $power?->average();
            $target = $this->target ?? self::usual($mix->trackOf($id)->stem);
            if (null === $now || null === $peak || $clip->gain->isSilence()) {
                return ['clip' => $id, 'now' => $now, 'target' => $target, 'gain' => null, 'by' => null, 'after' => $now, 'limit' => null];
            }
            $by = $target - $now;
            $most = ['gain' => Decibels::MAX_CLIP - $clip->gain->db, 'peak' => max(0.0, $this->ceiling - $peak)];
            asort($most);
            $limit = $by > reset($most) + 0.005 ? key($most) : null;
            $by = round(null === $limit ? $by : $most[$limit], 2);

            return ['clip' => $id, 'now' => $now, 'target' => $target, 'gain' => $clip->gain->db + $by, 'by' => $by, 'after' => $now + $by, 'limit' => $limit];
        }, $clips);
    }

    public static function usual(Stem $stem): float
    {
        return Stem::Speech === $stem ? self::SPEECH : self::BACKGROUND;
    }
}
