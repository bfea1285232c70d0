<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

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
     * @param list<resource> $levels one for each entry of BINS_PER_POINT; each gets uint16 (little-endian), the highest absolute sample of any channel, 32768 = full scale
     */
    public static function write(mixed $waveform, int $channels, array $levels): void
    {
        while ('' !== ($bytes = (string) stream_get_contents($waveform, self::CHUNK * $channels * 4))) {
            $points = self::peaks($bytes, $channels);
            $joined = 1;
            foreach (self::BINS_PER_POINT as $level => $bins) {
                if ($bins > $joined) {
                    $points = array_map(static fn (array $group): int => max(0, ...$group), array_chunk($points, max(1, intdiv($bins, $joined))));
                    $joined = $bins;
                }
                fwrite($levels[$level], pack('v*', ...$points));
            }
        }
    }

    /**
     * The outline of one channel of a stereo waveform.
     *
     * @param resource $waveform as SourceMeasurer wrote it for two channels, at its start
     * @param int $channel 0 or 1
     * @param int $level index into BINS_PER_POINT
     *
     * @return string uint16 (little-endian) per point, 32768 = full scale
     */
    public static function ofChannel(mixed $waveform, int $channel, int $level): string
    {
        $bins = self::BINS_PER_POINT[$level];
        $outline = '';
        while ('' !== ($bytes = (string) stream_get_contents($waveform, self::CHUNK * 8))) {
            /** @var array<int, int> $words */
            $words = unpack('v*', $bytes);
            $points = [];
            for ($i = 1 + 2 * $channel, $bin = 0, $n = \count($words); $i < $n; $i += 4, ++$bin) {
                $low = $words[$i] < 32768 ? $words[$i] : 65536 - $words[$i];
                $high = $words[$i + 1] < 32768 ? $words[$i + 1] : 65536 - $words[$i + 1];
                $point = intdiv($bin, $bins);
                $points[$point] = max($points[$point] ?? 0, $low, $high);
            }
            $outline .= pack('v*', ...$points);
        }

        return $outline;
    }

    /** @return list<int> */
    private static function peaks(string $bytes, int $channels): array
    {
        /** @var array<int, int> $words */
        $words = unpack('v*', $bytes);
        $peaks = [];
        $perBin = 2 * $channels;
        for ($i = 1, $n = \count($words); $i < $n; $i += $perBin) {
            $peak = 0;
            for ($j = $i; $j < $i + $perBin; ++$j) {
                $peak = max($peak, $words[$j] < 32768 ? $words[$j] : 65536 - $words[$j]);
            }
            $peaks[] = $peak;
        }

        return $peaks;
    }
}
