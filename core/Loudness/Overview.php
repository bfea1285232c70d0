<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\Output;

/** One-sided outlines of a waveform for drawing, from coarse to fine. */
final class Overview
{
    /** Bins of 5 ms joined into one point, level by level: 5, 20, 80, 320 ms and 1.28 s. */
    public const BINS_PER_POINT = [1, 4, 16, 64, 256];

    /** Bins read at once; a multiple of the coarsest level. */
    private const CHUNK = 8192;

    /**
     * @param resource $waveform as SourceMeasurer wrote it, at its start
     * @param int $channels 1 or 2
     * @param ?int $only outlines one channel, 0 or 1; null for whichever is higher
     * @param list<resource> $levels one for each entry of BINS_PER_POINT; each gets uint16 (little-endian), the highest absolute sample, 32768 = full scale
     */
    public static function write(mixed $waveform, int $channels, array $levels, ?int $only = null): void
    {
        while ('' !== ($bytes = (string) stream_get_contents($waveform, self::CHUNK * $channels * 4))) {
            $points = self::peaks($bytes, $channels, $only);
            $joined = 1;
            foreach (self::BINS_PER_POINT as $level => $bins) {
                if ($bins > $joined) {
                    $points = array_map(static fn (array $group): int => max(0, ...$group), array_chunk($points, max(1, intdiv($bins, $joined))));
                    $joined = $bins;
                }
                Output::write($levels[$level], pack('v*', ...$points));
            }
        }
    }

    /** @return list<int> */
    private static function peaks(string $bytes, int $channels, ?int $only): array
    {
        /** @var array<int, int> $words */
        $words = unpack('v*', $bytes);
        $peaks = [];
        $perBin = 2 * $channels;
        [$first, $last] = null === $only ? [0, $perBin] : [2 * $only, 2 * $only + 2];
        for ($i = 1, $n = \count($words); $i < $n; $i += $perBin) {
            $peak = 0;
            for ($j = $i + $first, $end = $i + $last; $j < $end; ++$j) {
                $peak = max($peak, $words[$j] < 32768 ? $words[$j] : 65536 - $words[$j]);
            }
            $peaks[] = $peak;
        }

        return $peaks;
    }
}
