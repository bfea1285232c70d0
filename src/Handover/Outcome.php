<?php

declare(strict_types=1);

namespace Wattage\App\Handover;

use Wattage\Core\Handover\GuardActs;
use Wattage\Core\Handover\Target;
use Wattage\Core\Loudness\Loudness;

/** What came of a file, as lists and reports show it: LUFS, LU, dBTP, dB and seconds. */
final readonly class Outcome
{
    private const MOST_POINTS = 1500;

    /**
     * @param int $rate samples per second of the file
     * @param float $gain dB that all of it was given
     * @param list<array{at: int, db: float, track: ?string}> $places where the peak guard acted
     * @param ?array<string, mixed> $tame the edit that makes it needless
     *
     * @return array<string, mixed>
     */
    public static function of(Loudness $measured, int $rate, float $gain, Target $target, bool $isMet, GuardActs $acts, array $places, ?array $tame): array
    {
        $round = static fn (?float $value): ?float => null === $value ? null : round($value, 2);

        return [
            'integrated' => $round($measured->integrated),
            'range' => $round($measured->range),
            'truePeak' => $round($measured->truePeak),
            'maxMomentary' => $round($measured->maxMomentary),
            'maxShortTerm' => $round($measured->maxShortTerm),
            'seconds' => round($measured->frames / $rate, 3),
            'gain' => $round($gain),
            'target' => ['loudness' => $target->loudness, 'truePeak' => $target->truePeak],
            'met' => $isMet,
            'history' => self::thinned($measured->history),
            'guard' => [
                'most' => $round($acts->most),
                'seconds' => $round($acts->seconds()),
                'part' => round($acts->frames / max(1, $measured->frames), 4),
                'places' => $places,
                'tame' => $tame,
            ],
        ];
    }

    /**
     * @param list<?float> $history once a second
     *
     * @return array{every: int, lufs: list<?float>} seconds between two, and the loudest of each such time
     */
    private static function thinned(array $history): array
    {
        $every = max(1, (int) ceil(\count($history) / self::MOST_POINTS));

        return ['every' => $every, 'lufs' => array_map(static function (array $some): ?float {
            $heard = array_filter($some, static fn (?float $lufs): bool => null !== $lufs);

            return [] === $heard ? null : round(max($heard), 1);
        }, [] === $history ? [] : array_chunk($history, $every))];
    }
}
