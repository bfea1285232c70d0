<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\NotWritten;
use Wattage\Core\Signal\Output;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;

/**
 * Measures a source once, as its sound streams past: per 20 ms block the K-weighted mean square and the sample peak of
 * each channel, per 5 ms bin the lowest and highest sample. Any way of cutting the stream into pushes gives the same result.
 */
final class SourceMeasurer
{
    public const BLOCKS_PER_SECOND = 50;
    public const BINS_PER_BLOCK = 4;

    /** @var list<ChannelMeter> */
    private array $meters = [];
    private readonly int $binFrames;
    private string $rest = '';
    private int $frames = 0;
    private int $peak = 0;

    /**
     * @param int $rate samples per second, a multiple of 200
     * @param resource $blocks gets float32 (little-endian): for each block, for each channel, mean square (full scale sine 0.5 before weighting) and sample peak (0…1)
     * @param resource $waveform gets int16 (little-endian): for each bin, for each channel, lowest and highest sample
     */
    public function __construct(private readonly PcmFormat $format, int $rate, private readonly mixed $blocks, private readonly mixed $waveform)
    {
        $filter = KWeighting::atRate($rate);
        for ($c = 0; $c < $format->channels; ++$c) {
            $this->meters[] = new ChannelMeter($filter);
        }
        $this->binFrames = intdiv($rate, self::BLOCKS_PER_SECOND * self::BINS_PER_BLOCK);
    }

    /**
     * @param string $bytes any number of bytes of interleaved PCM
     *
     * @throws NotWritten
     */
    public function push(string $bytes): void
    {
        $bytes = '' === $this->rest ? $bytes : $this->rest.$bytes;
        $blockBytes = self::BINS_PER_BLOCK * $this->binFrames * $this->format->bytesPerFrame();
        $whole = intdiv(\strlen($bytes), $blockBytes) * $blockBytes;
        for ($at = 0; $at < $whole; $at += $blockBytes) {
            $this->block(PcmDecoder::decode(substr($bytes, $at, $blockBytes), $this->format));
        }
        $this->rest = substr($bytes, $whole);
    }

    /** Measures what is left; a broken frame at the very end is dropped. */
    public function finish(): Totals
    {
        $whole = intdiv(\strlen($this->rest), $this->format->bytesPerFrame()) * $this->format->bytesPerFrame();
        if ($whole > 0) {
            $this->block(PcmDecoder::decode(substr($this->rest, 0, $whole), $this->format));
        }
        $this->rest = '';

        return new Totals($this->frames, $this->peak / $this->format->fullScale());
    }

    /** @param array<int, int> $samples one block, or the shorter last one */
    private function block(array $samples): void
    {
        $channels = $this->format->channels;
        $frames = intdiv(\count($samples), $channels);
        $toInt16 = $this->format->bits - 16;
        $full = (float) $this->format->fullScale();
        $values = [];
        $bins = [];
        foreach ($this->meters as $c => $meter) {
            $energy = 0.0;
            $peak = 0;
            for ($bin = 0; $bin * $this->binFrames < $frames; ++$bin) {
                $start = $bin * $this->binFrames;
                [$sum, $low, $high] = $meter->measure($samples, $start * $channels + $c, $channels, min($this->binFrames, $frames - $start));
                $energy += $sum;
                $peak = max($peak, $high, -$low);
                $bins[$bin * $channels + $c] = pack('vv', ($low >> $toInt16) & 0xFFFF, ($high >> $toInt16) & 0xFFFF);
            }
            $values[] = $energy / ($frames * $full * $full);
            $values[] = $peak / $full;
            $this->peak = max($this->peak, $peak);
        }
        ksort($bins);
        Output::write($this->blocks, pack('g*', ...$values));
        Output::write($this->waveform, implode('', $bins));
        $this->frames += $frames;
    }
}
