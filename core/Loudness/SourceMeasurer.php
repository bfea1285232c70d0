<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Bands\BandMeter;
use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Signal\Output;
use Wattage\Core\Signal\PcmFormat;

/**
 * Measures a source once, as its sound streams past: per 20 ms block the K-weighted mean square and the sample peak of
 * each channel, per 5 ms bin the lowest and highest sample. Any way of cutting the stream into pushes gives the same result.
 */
final class SourceMeasurer
{
    public const BLOCKS_PER_SECOND = 50;
    public const BINS_PER_BLOCK = 4;

    private readonly Bins $bins;
    private readonly int $blockBytes;
    private string $rest = '';
    private int $frames = 0;
    private int $peak = 0;

    /**
     * @param int $rate samples per second, a multiple of 200
     * @param resource $blocks gets float32 (little-endian): for each block, for each channel, mean square (full scale sine 0.5 before weighting) and sample peak (0…1)
     * @param resource $waveform gets int16 (little-endian): for each bin, for each channel, lowest and highest sample
     * @param ?BandMeter $bands goes along, block by block; null where nobody asks for bands
     */
    public function __construct(private readonly PcmFormat $format, int $rate, private readonly mixed $blocks, private readonly mixed $waveform, private readonly ?BandMeter $bands = null)
    {
        $bin = intdiv($rate, self::BLOCKS_PER_SECOND * self::BINS_PER_BLOCK);
        $block = self::BINS_PER_BLOCK * $bin;
        $this->blockBytes = $block * $format->bytesPerFrame();
        $filter = KWeighting::atRate($rate);
        $this->bins = match (true) {
            2 === $format->channels && 16 === $format->bits && StereoBins16::suits($block, $bin) => new StereoBins16($filter, $bin),
            2 === $format->channels && 24 === $format->bits && StereoBins24::suits($block, $bin) => new StereoBins24($filter, $bin),
            default => new PlainBins($format, $filter, $bin),
        };
    }

    /** @return array{int, int} bytes that a second takes in the blocks and in the waveform */
    public static function bytesPerSecond(int $channels): array
    {
        return [self::BLOCKS_PER_SECOND * $channels * 2 * 4, self::BLOCKS_PER_SECOND * self::BINS_PER_BLOCK * $channels * 2 * 2];
    }

    /**
     * @param string $bytes any number of bytes of interleaved PCM
     *
     * @throws NotWritten
     */
    public function push(string $bytes): void
    {
        $bytes = '' === $this->rest ? $bytes : $this->rest.$bytes;
        $whole = intdiv(\strlen($bytes), $this->blockBytes) * $this->blockBytes;
        $blocks = [];
        for ($at = 0; $at < $whole; $at += $this->blockBytes) {
            $block = substr($bytes, $at, $this->blockBytes);
            $blocks[] = $measured = $this->bins->block($block);
            $this->bands?->block($block, $measured[2]);
        }
        $this->write($blocks, intdiv($this->blockBytes, $this->format->bytesPerFrame()));
        $this->rest = substr($bytes, $whole);
    }

    /** Measures what is left; a broken frame at the very end is dropped. */
    public function finish(): Totals
    {
        $whole = intdiv(\strlen($this->rest), $this->format->bytesPerFrame()) * $this->format->bytesPerFrame();
        if ($whole > 0) {
            $block = substr($this->rest, 0, $whole);
            $measured = $this->bins->rest($this->format)->block($block);
            $this->bands?->block($block, $measured[2]);
            $this->write([$measured], intdiv($whole, $this->format->bytesPerFrame()));
        }
        $this->bands?->finish();
        $this->rest = '';

        return new Totals($this->frames, $this->peak / $this->format->fullScale());
    }

    /**
     * @param list<array{list<float>, list<int>, list<list<int>>}> $blocks
     * @param int $frames of each
     */
    private function write(array $blocks, int $frames): void
    {
        $channels = $this->format->channels;
        $toInt16 = $this->format->bits - 16;
        $full = (float) $this->format->fullScale();
        $values = $bins = [];
        foreach ($blocks as [$energies, $extremes]) {
            $peaks = array_fill(0, $channels, 0);
            foreach ($extremes as $i => $extreme) {
                $c = intdiv($i, 2) % $channels;
                $peaks[$c] = max($peaks[$c], abs($extreme));
                $bins[] = ($extreme >> $toInt16) & 0xFFFF;
            }
            foreach ($energies as $c => $energy) {
                $values[] = $energy / ($frames * $full * $full);
                $values[] = $peaks[$c] / $full;
                $this->peak = max($this->peak, $peaks[$c]);
            }
            $this->frames += $frames;
        }
        Output::write($this->blocks, pack('g*', ...$values));
        Output::write($this->waveform, pack('v*', ...$bins));
    }
}
