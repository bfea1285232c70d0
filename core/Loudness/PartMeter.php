<?php

declare(strict_types=1);

namespace Wattage\Core\Loudness;

use Wattage\Core\Signal\SampleLayout;

/**
 * Measures a stretch of a sound, so that several processes can share one. Each but the first begins a second early: by then the
 * filters have settled, and what peaks at the seam is seen whole. Joined, the parts measure as the whole does.
 */
final class PartMeter
{
    public const RUN_UP_SECONDS = 1;
    private const TENTHS_PER_SECOND = 10;

    private readonly Scan $scan;
    private readonly int $tenth;
    private string $rest = '';

    /** Tenths still to pass before it counts. */
    private int $runUp;

    /** @var list<float> */
    private array $powers = [];
    private float $squares = 0.0;
    private int $frames = 0;

    /** @param bool $hasRunUp whether the first second only leads up to it */
    public function __construct(private readonly SampleLayout $layout, int $rate, bool $hasRunUp)
    {
        self::suits($rate) || throw InvalidSound::rate($rate);
        $this->scan = LoudnessMeter::scan($layout, $rate);
        $this->tenth = intdiv($rate, self::TENTHS_PER_SECOND);
        $this->runUp = $hasRunUp ? self::RUN_UP_SECONDS * self::TENTHS_PER_SECOND : 0;
    }

    /** Whether 100 ms are a whole number of samples, so that parts can end there. */
    public static function suits(int $rate): bool
    {
        return 0 === $rate % self::TENTHS_PER_SECOND;
    }

    public function push(string $bytes): void
    {
        $bytes = $this->rest.$bytes;
        $size = $this->tenth * $this->layout->bytesPerFrame();
        $at = 0;
        for ($end = \strlen($bytes); $at + $size <= $end; $at += $size) {
            $this->measure(substr($bytes, $at, $size));
        }
        $this->rest = substr($bytes, $at);
    }

    /** Up to a seam: what follows is another part's. */
    public function part(): MeasuredPart
    {
        return new MeasuredPart($this->powers, $this->squares, $this->frames, ...$this->scan->peaks());
    }

    /** Up to the end of the sound. */
    public function lastPart(): MeasuredPart
    {
        $size = $this->layout->bytesPerFrame();
        $rest = substr($this->rest, 0, intdiv(\strlen($this->rest), $size) * $size);
        if ('' !== $rest && 0 === $this->runUp) {
            [, $squares] = $this->scan->measure($rest);
            $this->squares += $squares;
            $this->frames += intdiv(\strlen($rest), $size);
        }

        return new MeasuredPart($this->powers, $this->squares, $this->frames, ...$this->scan->finish());
    }

    private function measure(string $bytes): void
    {
        [$weighted, $squares] = $this->scan->measure($bytes);
        if ($this->runUp > 0) {
            // The abrupt start of a part overshoots; of the run-up only the last 100 ms count for peaks.
            if (1 === --$this->runUp) {
                $this->scan->forgetPeaks();
            }

            return;
        }
        $this->powers[] = $weighted / $this->tenth;
        $this->squares += $squares;
        $this->frames += $this->tenth;
    }
}
