<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

/** How loud a recording is along its length, as the ear weighs it: the body of a drawn waveform, inside the outline of its peaks ({@see Overview}). */
final class AverageOutline
{
    /**
     * @param iterable<SourceBlocks> $minutes piece by piece, in order
     * @param int $level of Overview, 1 to 4 (its finest is finer than a block): 20, 80, 320 ms and 1.28 s
     * @param ?int $only averages one channel, 0 or 1; null for whichever is louder
     *
     * @return string uint16 (little-endian), root of the K-weighted mean square (ITU-R BS.1770), 32768 = full scale
     */
    public static function of(iterable $minutes, int $level, ?int $only = null): string
    {
        $joined = max(1, intdiv(Overview::BINS_PER_POINT[$level], SourceMeasurer::BINS_PER_BLOCK));
        $points = '';
        $rest = [];
        foreach ($minutes as $minute) {
            $powers = [...$rest, ...self::powers($minute, $only)];
            $whole = \count($powers) - \count($powers) % $joined;
            $points .= self::packed(\array_slice($powers, 0, $whole), $joined);
            $rest = \array_slice($powers, $whole);
        }

        return $points.self::packed($rest, $joined);
    }

    /** @return list<float> */
    private static function powers(SourceBlocks $minute, ?int $only): array
    {
        if (null !== $only || 1 === $minute->channels()) {
            return $minute->powers($only ?? 0);
        }

        return array_map(static fn (float $left, float $right): float => max($left, $right), $minute->powers(0), $minute->powers(1));
    }

    /**
     * @param list<float> $powers
     * @param positive-int $joined
     */
    private static function packed(array $powers, int $joined): string
    {
        $points = array_map(static fn (array $group): int => min(65535, (int) round(32768 * sqrt(array_sum($group) / \count($group)))), array_chunk($powers, $joined));

        return pack('v*', ...$points);
    }
}
