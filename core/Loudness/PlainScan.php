<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\SampleLayout;

/** Any number of channels, any kind of samples, one channel after the other. */
final class PlainScan implements Scan
{
    /** Samples looked at together for the true peak. */
    private const CHUNK = 480;

    /** @var list<ChannelMeter> */
    private array $meters = [];

    /** @var list<float> */
    private readonly array $weights;
    private readonly TruePeak $peak;
    private float $highest = 0.0;

    /** @throws InvalidSound */
    public function __construct(private readonly SampleLayout $layout, int $rate)
    {
        $this->weights = ChannelWeights::of($layout->channels);
        $filter = KWeighting::atRate($rate);
        for ($channel = 0; $channel < $layout->channels; ++$channel) {
            $this->meters[] = new ChannelMeter($filter);
        }
        $this->peak = new TruePeak($layout->channels);
    }

    public function measure(string $bytes): array
    {
        return $this->measureSamples($this->layout->decode($bytes));
    }

    /**
     * @param array<int, float|int> $samples whole frames, interleaved
     *
     * @return array{float, float} as {@see measure()} does
     */
    public function measureSamples(array $samples): array
    {
        $channels = $this->layout->channels;
        $frames = intdiv(\count($samples), $channels);
        $weighted = $plain = 0.0;
        foreach ($this->meters as $channel => $meter) {
            for ($start = 0; $start < $frames; $start += self::CHUNK) {
                $count = min(self::CHUNK, $frames - $start);
                [$energy, $low, $high, $squares] = $meter->measure($samples, $start * $channels + $channel, $channels, $count);
                $weighted += $this->weights[$channel] * $energy;
                $plain += $squares;
                $this->lookForPeak($samples, $channel, $start, $count, max($high, -$low));
            }
        }
        $scale = $this->layout->fullScale() ** 2;

        return [$weighted / $scale, $plain / $scale];
    }

    public function peaks(): array
    {
        return [$this->peak->highest() / $this->layout->fullScale(), $this->highest / $this->layout->fullScale()];
    }

    public function forgetPeaks(): void
    {
        $this->peak->forget();
        $this->highest = 0.0;
    }

    public function finish(): array
    {
        $this->peak->finish();

        return $this->peaks();
    }

    /** @param array<int, float|int> $samples interleaved */
    private function lookForPeak(array $samples, int $channel, int $start, int $count, int|float $loudest): void
    {
        $this->highest = max($this->highest, (float) $loudest);
        $rising = $this->peak->mayRise($channel, $loudest);
        $channels = $this->layout->channels;
        $row = [];
        for ($i = $rising ? $start : max($start, $start + $count - TruePeak::TAPS), $end = $start + $count; $i < $end; ++$i) {
            $row[] = $samples[$i * $channels + $channel];
        }
        // A last piece may be shorter than what later samples need of it; then what came before it still counts.
        $rising || $count < TruePeak::TAPS ? $this->peak->push($channel, $row, $loudest) : $this->peak->pass($channel, $row, $loudest);
    }
}
