<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\SampleLayout;

/**
 * Measures a sound that is at hand as numbers, 100 ms at a time: all of it, or a part, which several processes can share as with
 * {@see PartMeter}. The same as {@see LoudnessMeter} finds in its bytes.
 */
final class SampleMeter
{
    private readonly PlainScan|StereoSamples $scan;
    /** @var list<float> */
    private array $powers = [];
    private int $frames = 0;
    private float $squares = 0.0;

    /**
     * @param int $channels 1 or 2
     * @param int $rate samples per second, of which 100 ms are a whole number
     * @param bool $peaks whether its peaks matter; where not, they may be told as none
     * @param int $runUp pieces of 100 ms that only lead up to it
     */
    public function __construct(private readonly int $channels, private readonly int $rate, bool $peaks = true, private int $runUp = 0)
    {
        0 === $rate % 10 || throw InvalidSound::rate($rate);
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
        if ($this->runUp > 0) {
            // The abrupt start of a part overshoots; of the run-up only the last 100 ms count for peaks.
            1 === --$this->runUp && $this->scan->forgetPeaks();

            return;
        }
        // Less than 100 ms fills no window.
        if (10 * $frames === $this->rate) {
            $this->powers[] = $weighted / $frames;
        }
        $this->squares += $squares;
        $this->frames += $frames;
    }

    /** Up to a seam: what follows is another part's. */
    public function part(): MeasuredPart
    {
        return new MeasuredPart($this->powers, $this->squares, $this->frames, ...$this->scan->peaks());
    }

    /** Up to the end of the sound. */
    public function lastPart(): MeasuredPart
    {
        return new MeasuredPart($this->powers, $this->squares, $this->frames, ...$this->scan->finish());
    }

    public function finish(): Loudness
    {
        return LoudnessMeter::joined([$this->lastPart()], $this->channels);
    }
}
