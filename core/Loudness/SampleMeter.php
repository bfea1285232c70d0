<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\SampleLayout;

/** Measures a sound that is at hand as numbers, 100 ms at a time. The same as {@see LoudnessMeter} finds in its bytes. */
final class SampleMeter
{
    public readonly LoudnessWindows $windows;
    private readonly PlainScan|StereoSamples $scan;
    private int $frames = 0;
    private float $squares = 0.0;

    /**
     * @param int $channels 1 or 2
     * @param int $rate samples per second, of which 100 ms are a whole number
     * @param bool $peaks whether its peaks matter; where not, they may be told as none
     */
    public function __construct(private readonly int $channels, private readonly int $rate, bool $peaks = true)
    {
        0 === $rate % 10 || throw InvalidSound::rate($rate);
        $this->windows = new LoudnessWindows();
        $this->scan = 2 === $channels ? new StereoSamples($rate, $peaks) : new PlainScan(SampleLayout::float32($channels), $rate);
    }

    /** @param array<int, float> $samples 100 ms of them, but for the last; interleaved, full scale ±1.0 */
    public function push(array $samples): void
    {
        $frames = intdiv(\count($samples), $this->channels);
        if (0 === $frames) {
            return;
        }
        [$weighted, $squares] = $this->scan->measureSamples($samples);
        // Less than 100 ms fills no window.
        if (10 * $frames === $this->rate) {
            $this->windows->push($weighted / $frames);
        }
        $this->squares += $squares;
        $this->frames += $frames;
    }

    public function finish(): Loudness
    {
        [$truePeak, $samplePeak] = $this->scan->finish();

        return Loudness::of($this->windows, $this->frames, $this->squares / max(1, $this->frames * $this->channels), $truePeak, $samplePeak);
    }
}
