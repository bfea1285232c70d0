<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Bands\Lows;
use Wattage\Core\Signal\PcmDecoder;
use Wattage\Core\Signal\PcmFormat;

/** Any number of channels, any length of block. */
final readonly class PlainBins implements Bins
{
    /** @var non-empty-list<ChannelMeter> */
    private array $meters;
    /** @var list<Lows> by channel */
    private array $lows;

    /**
     * @param int $bin frames
     * @param array<int, array{float, float, float, float}> $states of the filters to begin with, by channel
     * @param list<Lows> $lows to go on with, by channel
     */
    public function __construct(private PcmFormat $format, KWeighting $filter, private int $bin, array $states = [], array $lows = [])
    {
        $this->lows = [] !== $lows ? $lows : array_map(static fn (): Lows => new Lows(), range(1, $format->channels));
        $this->meters = array_map(static fn (int $c): ChannelMeter => new ChannelMeter($filter, ...$states[$c] ?? []), range(0, $format->channels - 1));
    }

    public function rest(PcmFormat $format): self
    {
        return $this;
    }

    public function block(string $bytes): array
    {
        $samples = PcmDecoder::decode($bytes, $this->format);
        $channels = $this->format->channels;
        $frames = intdiv(\count($samples), $channels);
        $energies = array_fill(0, $channels, 0.0);
        $extremes = [];
        for ($start = 0; $start < $frames; $start += $this->bin) {
            foreach ($this->meters as $c => $meter) {
                [$energy, $low, $high] = $meter->measure($samples, $start * $channels + $c, $channels, min($this->bin, $frames - $start));
                $energies[$c] += $energy;
                array_push($extremes, $low, $high);
            }
        }

        return [array_values($energies), $extremes, array_map(static fn (Lows $lows, int $c): array => $lows->ofSamples($samples, $c, $channels), $this->lows, array_keys($this->lows))];
    }
}
